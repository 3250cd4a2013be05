import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DIFFICULTIES, deal, questionsOf, type Paper, type Question } from '$core/paper';
import { plannable } from '$core/plan';
import { fillPlan, parallelForms } from '$core/optimal';
import { findInBank, keepInBank } from '$lib/server/bank';
import { DEMO_BANK, DEMO_PAPERS } from '$lib/server/demo';
import { startOtium } from '$lib/server/otium';
import { packageOf, readQti } from '$lib/server/paper';

export type PaperFigures = {
	/** 1,000 forms of 100 questions, ten of them calculated, seconds. */
	dealSeconds: number;
	/** A plan of 60 out of 5,000, and four forms of 40 out of 400, seconds. */
	fillSeconds: number;
	formsSeconds: number;
	/** A package of 500 questions, written and read, seconds. */
	packageSeconds: number;
	/** A bank of 20,000: a page of the list, and a search by two words; the median of many, ms. */
	listMs: number;
	searchMs: number;
};

const ALL = { id: 'bench', sites: null };

/** Measures what authors and dealing cost, with questions of the demo again and again. */
export async function measurePapers(): Promise<PaperFigures> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-papers-'));
	const otium = await startOtium({ dataDir: dir, sweep: false, logLevel: 'silent' });
	try {
		const bank = many(20_000);
		const now = otium.now();
		await otium.db('staff').insert({ id: 'bench', sign_in: 'bench', name: 'Bench', password_hash: '-' });
		await keepInBank(otium.db, bank, { at: now, writer: ALL, siteId: null, audience: 'all' });
		const find = (text: string) => findInBank(otium.db, ALL, { text }, now);

		const dealt = paperOf(many(100));
		const order = { questionsInOwnOrder: true, choicesInOwnOrder: true };
		const dealSeconds = await seconds(() => {
			for (let seed = 1; seed <= 1_000; seed++) deal(dealt, order, seed);
		});
		const choosable = bank
			.slice(0, 5_000)
			.map((one, i) => ({ ...plannable(one), lastUsed: null, isKnown: i % 11 === 0 }));
		const topics = [...new Set(choosable.map(({ topic }) => topic.split(' / ')[0]))].slice(0, 6);
		const plan = topics.map((topic) => ({ topic, difficulty: null, count: 10 }));
		const fillSeconds = await seconds(async () => {
			const { ids } = await fillPlan(choosable, plan, { minutes: 90, now });
			if (ids.flat().length !== 10 * topics.length) throw new Error('the plan was not filled');
		});
		const formsSeconds = await seconds(async () => {
			const { ids } = await parallelForms(bank.slice(0, 400).map(plannable), { forms: 4, each: 40 });
			if (ids.flat().length !== 160) throw new Error('the forms are not whole');
		});
		const large = paperOf(bank.slice(0, 500));
		const packageSeconds = await seconds(async () => {
			const { paper } = await readQti(otium, await packageOf(otium, large, '3.0'), null);
			if (questionsOf(paper).length !== 500) throw new Error('the package lost questions');
		});
		return {
			dealSeconds,
			fillSeconds,
			formsSeconds,
			packageSeconds,
			listMs: await median(15, () => find('')),
			searchMs: await median(15, (i) => find(`tide number ${i}`))
		};
	} finally {
		await otium.stop();
		rmSync(dir, { recursive: true, force: true });
	}
}

/** So many questions, each different in its words; every tenth calculated. */
function many(count: number): Question[] {
	const papers = DEMO_PAPERS.flatMap(({ paper }) => questionsOf(paper));
	const calculated = DEMO_BANK.filter(({ kind }) => kind === 'calculated');
	return Array.from({ length: count }).map((_, i): Question => {
		const from = i % 10 === 0 ? calculated[(i / 10) % calculated.length] : papers[i % papers.length];
		const { picture: _picture, ...one } = from;
		const stem = one.kind === 'calculated' || one.kind === 'fill_in' ? one.stem : `${one.stem} (number ${i})`;
		return { ...one, id: `n${i}`, stem, difficulty: DIFFICULTIES[i % 3] } as Question;
	});
}

const paperOf = (questions: Question[]): Paper => ({ title: 'Large', parts: [{ title: '', draw: null, questions }] });

async function seconds(work: () => unknown): Promise<number> {
	const from = performance.now();
	await work();
	return (performance.now() - from) / 1_000;
}

async function median(times: number, work: (i: number) => Promise<unknown>): Promise<number> {
	const taken: number[] = [];
	for (let i = 0; i < times; i++) taken.push(1_000 * (await seconds(() => work(i))));
	return taken.sort((a, b) => a - b)[times >> 1];
}

/** A paper of 300 questions, all in one part. */
export const longPaper = (): Paper => paperOf(many(300));
