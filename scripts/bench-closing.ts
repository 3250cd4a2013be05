import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import type { StaffMember } from '$core/access';
import { findAlike } from '$core/alike';
import { deal, questionsOf, type Paper } from '$core/paper';
import { DEFAULT_RULES } from '$core/session';
import { newSitting } from '$core/sitting';
import { MINUTE } from '$core/time';
import { archivesIn, sealArchive, verifyArchive } from '$lib/server/archive';
import { insertMany } from '$lib/server/db';
import { standingOf } from '$lib/server/closing';
import { DEMO_BANK } from '$lib/server/demo';
import { figuresFor, remark } from '$lib/server/marking';
import { startOtium, type Otium } from '$lib/server/otium';

export type ClosingFigures = {
	/** 5,000 sittings of 60 questions marked as they are and once more with a correction, seconds; and the figures of all questions. */
	remarkSeconds: number;
	figuresSeconds: number;
	/** How long others waited at most while that went on, ms. */
	otherWaitedMs: number;
	/** How the closing of all stands, read for the first time, seconds: everything marked, all pairs of 5,000 compared. */
	standingSeconds: number;
	/** 300 people compared, 44,850 pairs, seconds. */
	alikeSeconds: number;
	/** The archive of all, seconds and MB; and its proof, MB a second, results worked out again among it. */
	archiveSeconds: number;
	archiveMb: number;
	verifyMbPerSecond: number;
	/** What the archive holds, unpacked, MB. */
	unpackedMb: number;
};

const CLOSER: StaffMember = { id: 'lorne', name: 'Petra Lorne', roles: [{ role: 'closing_officer', siteId: null }] };
const PEOPLE = 5_000;
const QUESTIONS = 60;

/** Measures what closing costs, with 5,000 sittings of 60 questions. */
export async function measureClosing(): Promise<ClosingFigures> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-closing-'));
	const otium = await startOtium({ dataDir: dir, sweep: false, logLevel: 'silent' });
	try {
		await furnish(otium);
		const of = { administrationId: 'winter', paperId: 'paper' };
		const [first] = QUESTION_LIST;
		// The thread starts once; that is not part of a marking.
		await figuresFor(otium, { administrationId: 'none', paperId: 'paper' });
		let waited = 0;
		let last = performance.now();
		const beat = setInterval(() => {
			waited = Math.max(waited, performance.now() - last - 10);
			last = performance.now();
		}, 10);
		const remarkSeconds = await seconds(() =>
			remark(otium, of, { questionId: first.id, correction: { kind: 'for_all' } })
		);
		const figuresSeconds = await seconds(() => figuresFor(otium, of));
		const standingSeconds = await seconds(() => standingOf(otium, 'winter', CLOSER));
		const alikeSeconds = await seconds(() => findAlike(class300()));
		clearInterval(beat);
		let sealed = { sha256: '', bytes: 0, name: '', manifest: { files: [] as { bytes: number }[] } };
		const archiveSeconds = await seconds(async () => {
			sealed = await sealArchive(otium, {
				administration: { id: 'winter', name: 'Winter' },
				at: otium.now(),
				closedBy: 'Bench',
				second: null,
				counts: { results: PEOPLE, answers: PEOPLE * QUESTIONS }
			});
		});
		const verifySeconds = await seconds(async () => {
			const { faults, remarked } = await verifyArchive(join(archivesIn(dir), sealed.name));
			if (faults.length > 0 || remarked !== PEOPLE) throw new Error(`not proven: ${faults.join(' ')}`);
		});
		const unpacked = sealed.manifest.files.reduce((sum, { bytes }) => sum + bytes, 0);
		return {
			remarkSeconds,
			figuresSeconds,
			standingSeconds,
			otherWaitedMs: waited,
			alikeSeconds,
			archiveSeconds,
			archiveMb: sealed.bytes / 1e6,
			verifyMbPerSecond: unpacked / 1e6 / verifySeconds,
			unpackedMb: unpacked / 1e6
		};
	} finally {
		await otium.stop();
		rmSync(dir, { recursive: true });
	}
}

const QUESTION_LIST = DEMO_BANK.filter(({ kind }) => kind === 'single').slice(0, QUESTIONS);
const PAPER: Paper = { title: 'Bench', parts: [{ title: 'All', questions: QUESTION_LIST, draw: null }] };

export async function furnish({ db, now }: Otium) {
	const at = now();
	await db('administration').insert({ id: 'winter', name: 'Winter' });
	await db('site').insert({ id: 'quayside', name: 'Quayside', zone: 'Europe/London' });
	await db('room').insert({ id: 'hall', site_id: 'quayside', name: 'Hall', seat_rows: 100, seats_per_row: 50 });
	await db('candidate_group').insert({ id: 'all', site_id: 'quayside', name: 'All' });
	await db('paper').insert({ id: 'paper', title: 'Bench', version: 1, content: JSON.stringify(PAPER) });
	await db('session').insert({
		id: 's1',
		administration_id: 'winter',
		room_id: 'hall',
		paper_id: 'paper',
		name: 'Bench',
		kind: 'live',
		opens: at - 120 * MINUTE,
		rules: JSON.stringify(DEFAULT_RULES),
		ended_at: at
	});
	const people = Array.from({ length: PEOPLE }, (_, i) => i);
	await db.transaction(async (trx) => {
		await insertMany(
			trx,
			'candidate',
			people.map((i) => ({
				id: `c${i}`,
				number: `N${i}`,
				number_folded: `n${i}`,
				given: `G${i}`,
				family: `F${i}`,
				group_id: 'all'
			}))
		);
		await insertMany(
			trx,
			'sitting',
			people.map((i) => ({
				id: `t${i}`,
				candidate_id: `c${i}`,
				administration_id: 'winter',
				paper_id: 'paper',
				session_id: 's1',
				state: 'handed_in',
				fold: JSON.stringify({
					...newSitting(`t${i}`, 's1', at),
					state: 'handed_in',
					ended: { by: 'candidate', at, receipt: `R${i}`, work: { answers: QUESTIONS, digest: '' } }
				})
			}))
		);
		await insertMany(
			trx,
			'roster',
			people.map((i) => ({ session_id: 's1', sitting_id: `t${i}` }))
		);
		for (let from = 0; from < PEOPLE; from += 250) {
			const some = people.slice(from, from + 250);
			const forms = some.map((i) => deal(PAPER, { questionsInOwnOrder: true, choicesInOwnOrder: true }, i + 1));
			await insertMany(
				trx,
				'form',
				some.map((i, k) => ({ sitting_id: `t${i}`, form: JSON.stringify(forms[k]) }))
			);
			const answers = some.flatMap((i) =>
				questionsOf(PAPER).map((question, q) => ({
					sitting_id: `t${i}`,
					question_id: question.id,
					epoch: 1,
					seq: q + 1,
					value: JSON.stringify({
						value: question.kind === 'single' ? choiceOf(question.choices, question.answer, drawn(i, q)) : '',
						marked: false,
						struck: []
					}),
					blank: 0,
					marked: 0,
					in_view_ms: 30_000,
					late: 0
				}))
			);
			await insertMany(trx, 'answer_standing', answers);
			await insertMany(
				trx,
				'answer',
				answers.map(({ blank: _b, marked: _m, ...answer }) => ({
					...answer,
					received_at: at,
					kept_because: null,
					group_seq: null
				}))
			);
		}
	});
}

/** Between 0 and 1, for person i and question q: as if each worked alone. */
function drawn(i: number, q: number): number {
	return Math.abs(Math.sin(i * 12.9898 + q * 78.233) * 43758.5453) % 1;
}

/** Six in ten have it right. */
function choiceOf(choices: { id: string }[], answer: string, at: number): string {
	const wrong = choices.filter(({ id }) => id !== answer);
	return at < 0.6 ? answer : wrong[Math.floor((at - 0.6) * 2.5 * wrong.length)].id;
}

function class300() {
	return Array.from({ length: 300 }, (_, i) => ({
		sittingId: `t${i}`,
		answers: new Map(
			Array.from({ length: QUESTIONS }, (_, q) => {
				const at = drawn(i, q);
				return [`q${q}`, { value: at < 0.6 ? 'a' : at < 0.8 ? 'b' : 'c', isRight: at < 0.6 }] as const;
			})
		)
	}));
}

async function seconds(work: () => unknown): Promise<number> {
	const began = performance.now();
	await work();
	return (performance.now() - began) / 1_000;
}
