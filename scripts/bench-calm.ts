import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { monitorEventLoopDelay } from 'node:perf_hooks';
import { setTimeout as sleep } from 'node:timers/promises';
import { startOtium, type Otium } from '$lib/server/otium';
import { printFor } from '$lib/server/print';
import { findSession } from '$lib/server/session';
import { act, begin } from '$lib/server/sitting';
import { importPeople } from './bench-import';
import { makeCrowdSession } from './crowd-session';

/** How long everything else stood still while something large was done, and what went on meanwhile. */
export type CalmFigure = {
	what: string;
	tookMs: number;
	/** The longest task of the event loop, ms: nothing else is answered while it lasts. */
	longestTaskMs: number;
	/** Answers that were saved meanwhile. */
	saves: number;
};

const ROOMS = 40;
const A_ROOM = 30;
const AT_WORK = 200;

/** Opens a wall and a large room, imports people and draws a report beside two hundred candidates who go on saving. */
export async function measureCalm(large: number): Promise<CalmFigure[]> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-calm-'));
	await makeCrowdSession(dir, large);
	const otium = await startOtium({ dataDir: dir, sweep: false, logLevel: 'silent' });
	try {
		const rooms = await moreRooms(otium);
		await bringToWork(otium);
		return [
			await beside(otium, `a wall of ${ROOMS} rooms of ${A_ROOM} opens`, async () => {
				await (await otium.hub.watchRooms(rooms)).cancel();
			}),
			await beside(otium, `a room of ${large.toLocaleString('en-GB')} opens`, async () => {
				await (await otium.hub.watchRoom('s', null))!.cancel();
			}),
			await beside(otium, '10,000 people are imported', () => importPeople(otium, table(10_000), 10_000)),
			await beside(otium, 'a register of 5,000 is drawn', async () => {
				const session = (await findSession(otium.db, 's'))!;
				await printFor(otium, session, 'register', 'https://otium.example');
			})
		];
	} finally {
		await otium.stop();
		rmSync(dir, { recursive: true, force: true });
	}
}

async function beside(otium: Otium, what: string, work: () => Promise<unknown>): Promise<CalmFigure> {
	let [saves, seq, isOn] = [0, Date.now() % 1_000_000_000, true];
	const saving = (async () => {
		while (isOn) {
			const sittingId = `t${saves % AT_WORK}`;
			const revision = { seq: seq++, questionId: 'none', value: null, marked: false, struck: [], inViewMs: 1 };
			const { questions } = JSON.parse(
				(await otium.db('form').where({ sitting_id: sittingId }).first('form')).form as string
			) as { questions: { id: string }[] };
			await otium.answers.save(sittingId, 1, [{ ...revision, questionId: questions[0].id }]);
			saves++;
			await sleep(2);
		}
	})();
	await sleep(300);
	const loop = watchLoop();
	const before = saves;
	const from = performance.now();
	await work();
	const tookMs = performance.now() - from;
	const longestTaskMs = await loop.stop();
	isOn = false;
	await saving;
	return { what, tookMs, longestTaskMs, saves: saves - before };
}

/**
 * The longest that the event loop did not turn. `monitorEventLoopDelay` samples timers, and misses what starves them by
 * promises alone, as a synchronous database does: a turn of our own sees both.
 */
function watchLoop() {
	const delay = monitorEventLoopDelay({ resolution: 1 });
	delay.enable();
	let [last, longest, isOn] = [performance.now(), 0, true];
	const turn = () => {
		const now = performance.now();
		longest = Math.max(longest, now - last);
		last = now;
		if (isOn) setImmediate(turn);
	};
	setImmediate(turn);
	return {
		async stop() {
			await sleep(20);
			isOn = false;
			delay.disable();
			return Math.max(longest, delay.max / 1e6);
		}
	};
}

async function moreRooms(otium: Otium): Promise<string[]> {
	const base = await otium.db('session').where({ id: 's' }).first();
	const ids = Array.from({ length: ROOMS }, (_, i) => `w${i}`);
	for (const [i, id] of ids.entries()) {
		await otium.db('session').insert({ ...base, id, door_code: null });
		const roster = Array.from({ length: A_ROOM }, (_, n) => ({ session_id: id, sitting_id: `t${i * A_ROOM + n}` }));
		await otium.db('roster').insert(roster);
	}
	return ids;
}

async function bringToWork(otium: Otium) {
	for (let i = 0; i < AT_WORK; i++) {
		const by = { role: 'candidate' as const, id: `c${i}` };
		const body = { kind: 'arrive' as const, sessionId: 's', deviceId: `d${i}`, deviceName: 'Bench' };
		await act(otium, [{ id: `bench-arrive-${i}`, sittingId: `t${i}`, by, body }]);
		await begin(otium, `t${i}`, `bench-begin-${i}`, '');
	}
}

function table(people: number): string {
	const rows = Array.from(
		{ length: people },
		(_, i) => `CA-${100_000 + i},Ada${i % 97},Tern${i % 89},Group ${i % 100}`
	);
	return ['number,given,family,group', ...rows].join('\n');
}
