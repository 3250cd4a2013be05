import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { DEFAULT_RULES } from '$core/session';
import { DEMO_PAPERS } from '$lib/server/demo';
import { startOtium, type Otium } from '$lib/server/otium';
import { findPeople } from '$lib/server/people';
import { blankInput, planSession } from '$lib/server/session';
import { importPeople } from './bench-import';

const ODE = { id: 'bench', name: 'Bench', roles: [{ role: 'coordinator' as const, siteId: null }] };

export type PrepareFigures = {
	people: number;
	/** Checking the file and importing it, seconds. */
	importSeconds: number;
	/** The longest that anybody else waited for the database meanwhile, ms. */
	longestWaitMs: number;
	/** A page of the list, and a search by two words; the median of many, ms. */
	listMs: number;
	searchMs: number;
	/** Planning a session of 500, ms. */
	checkMs: number;
};

/** Imports so many people into an empty house and measures what preparing costs then. */
export async function measurePreparing(people: number): Promise<PrepareFigures> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-prepare-'));
	const otium = await startOtium({ dataDir: dir, sweep: false, logLevel: 'silent' });
	try {
		await furnish(otium);
		const csv = table(people);
		const from = performance.now();
		const waits = askMeanwhile(otium);
		await importPeople(otium, csv, people);
		const importSeconds = (performance.now() - from) / 1_000;
		const longestWaitMs = await waits.stop();

		const search = (text: string, page = 0) =>
			findPeople(otium.db, ODE, { text, groupId: null, siteId: null, withLeft: false, page });
		const groupIds: string[] = await otium.db('candidate_group').limit(5).pluck('id');
		const input = {
			...blankInput('Europe/London', otium.now()),
			paperId: 'p',
			roomId: 'r',
			groupIds,
			rules: DEFAULT_RULES
		};
		return {
			people,
			importSeconds,
			longestWaitMs,
			listMs: await median(20, (i) => search('', i)),
			searchMs: await median(20, (i) => search(`tern${i} ada`)),
			checkMs: await median(7, async () => {
				const planned = await planSession(otium.db, 'a', input, otium.now());
				if (!planned.ok || planned.plan.facts.candidates !== 500) throw new Error('the session does not expect 500');
			})
		};
	} finally {
		await otium.stop();
		rmSync(dir, { recursive: true, force: true });
	}
}

async function furnish({ db }: Otium) {
	await db('administration').insert({ id: 'a', name: 'Bench' });
	await db('site').insert({ id: 'q', name: 'Quayside', zone: 'Europe/London' });
	await db('room').insert({ id: 'r', site_id: 'q', name: 'Sail Loft', seat_rows: 30, seats_per_row: 20 });
	const { paper } = DEMO_PAPERS[0];
	await db('paper').insert({ id: 'p', title: paper.title, version: 1, content: JSON.stringify(paper) });
	await db('paper_allowed').insert({ administration_id: 'a', paper_id: 'p' });
}

/** Groups of a hundred; every twentieth has extra time. */
function table(people: number): string {
	const rows = Array.from(
		{ length: people },
		(_, i) =>
			`BN-${100_000 + i},Ada${i % 97},Tern${i % 89},Group ${Math.floor(i / 100)},a${i}@sea.example,${i % 20 === 0 ? '1.5' : ''}`
	);
	return ['number,given,family,group,email,factor', ...rows].join('\n');
}

/** Asks the database for something small again and again, as the server does for everybody else. */
function askMeanwhile(otium: Otium) {
	let longest = 0;
	let going = true;
	const asking = (async () => {
		while (going) {
			const from = performance.now();
			await otium.db('site').first('id');
			longest = Math.max(longest, performance.now() - from);
			await new Promise((resolve) => setTimeout(resolve, 5));
		}
	})();
	return {
		async stop() {
			going = false;
			await asking;
			return longest;
		}
	};
}

async function median(times: number, work: (i: number) => Promise<unknown>): Promise<number> {
	const took: number[] = [];
	for (let i = 0; i < times; i++) {
		const from = performance.now();
		await work(i);
		took.push(performance.now() - from);
	}
	return took.sort((a, b) => a - b)[Math.floor(times / 2)];
}
