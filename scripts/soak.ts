import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import Database from 'better-sqlite3';
import { openDb } from '$lib/server/db';
import { runCrowd, type Acknowledged } from '../stand-ins/crowd';
import { accountOfRun, type AccountOfRun } from './account-of-run';
import { makeCrowdSession } from './crowd-session';
import { freePort, startServer } from './server-process';

export type Soak = { minutes: number; candidates: number; seed: number; log?: (line: string) => void };
export type Soaked = AccountOfRun & {
	acknowledged: number;
	/** Of these, essays of two thousand words. */
	essays: number;
	/** Of those who are without a line for ten minutes at a time. */
	fromAway: number;
	serverKills: number;
	candidateKills: number;
	storageFaults: number;
};

/** A server is killed about so often, and after that a tenth of the candidates. */
const KILL_EVERY_MS: [number, number] = [15_000, 60_000];
/** About so often the database can't be written to, for longer than the server waits for it. */
const FAULT_EVERY_MS: [number, number] = [40_000, 90_000];
const FAULT_MS: [number, number] = [6_000, 12_000];
/** So many groups are killed each by itself; one in ten of them is without a line for ten minutes at a time. */
const GROUPS = 20;
const AWAY_EVERY = 10;
/** Long enough to go away, come back and send. */
const AWAY_LIFE_MS = 14 * 60_000;

/**
 * A room that is worked in for so long while the server and the candidates are killed at random: SIGKILL for the server,
 * for candidates a device that is gone from one moment to the next and signs in again; while the disk takes nothing, some
 * write essays and some have no line. Then the books are checked.
 */
export async function soak({ minutes, candidates, seed, log = () => {} }: Soak): Promise<Soaked> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-soak-'));
	const { id, code, people } = await makeCrowdSession(dir, candidates, { essay: true });
	const port = await freePort();
	// A server that finds no disk to write to says so and stops; whoever supervises it starts it again.
	const start = async (): Promise<ChildProcess> =>
		startServer({ port, host: '127.0.0.1', dataDir: dir, log: 'silent' }).catch(() => sleep(1_000).then(start));
	let server = await start();
	const devices = new Map<string, string>();
	const acknowledged: Acknowledged[] = [];
	const until = Date.now() + minutes * 60_000;
	let [serverKills, candidateKills, storageFaults, fromAway, life] = [0, 0, 0, 0, 0];
	const stop = new AbortController();

	/** One device's life: killed, it comes again as the same device, in a browser of its own, until the time is over. */
	const live = async (group: typeof people, n: number) => {
		const isAway = n % AWAY_EVERY === AWAY_EVERY - 1;
		const lifeMs = () => (isAway ? AWAY_LIFE_MS : between(20_000, 140_000));
		while (Date.now() < until) {
			const kill = new AbortController();
			const end = setTimeout(() => kill.abort(), Math.min(until - Date.now(), lifeMs()));
			await runCrowd({
				url: `http://localhost:${port}`,
				code,
				candidates: group,
				devices,
				seed: seed + n + ++life,
				tempo: isAway ? 1 : 0.25,
				kinds: isAway ? ['away'] : ['steady', 'slow', 'dropper', 'rapid', 'writer'],
				promptly: true,
				keepWorking: true,
				acknowledged: (one) => {
					acknowledged.push(one);
					if (isAway) fromAway++;
				},
				signal: AbortSignal.any([kill.signal, stop.signal])
			});
			clearTimeout(end);
			candidateKills += group.length;
		}
	};
	const size = Math.ceil(people.length / GROUPS);
	const all = Array.from({ length: GROUPS }, (_, n) => people.slice(n * size, (n + 1) * size))
		.filter((group) => group.length > 0)
		.map(live);
	const faults = (async () => {
		while (!stop.signal.aborted) {
			await sleep(between(...FAULT_EVERY_MS), null, { signal: stop.signal }).catch(() => {});
			if (stop.signal.aborted) return;
			await lockDatabase(join(dir, 'otium.sqlite'), between(...FAULT_MS));
			storageFaults++;
		}
	})();
	while (Date.now() < until) {
		await sleep(Math.min(until - Date.now(), between(...KILL_EVERY_MS)));
		if (Date.now() >= until) break;
		const gone = new Promise((resolve) => server.once('exit', resolve));
		server.kill('SIGKILL');
		await gone;
		serverKills++;
		await sleep(Math.random() * 2_000);
		server = await start();
		log(
			`${serverKills} kills of the server, ${candidateKills} of candidates, ${storageFaults} times no disk, ${acknowledged.length} answers acknowledged`
		);
	}
	stop.abort();
	await Promise.all([...all, faults]);
	const gone = new Promise((resolve) => server.once('exit', resolve));
	server.kill('SIGKILL');
	await gone;
	const db = await openDb(join(dir, 'otium.sqlite'));
	const account = await accountOfRun(db, dir, id, acknowledged);
	await db.destroy();
	rmSync(dir, { recursive: true });
	return {
		...account,
		acknowledged: acknowledged.length,
		essays: acknowledged.filter((one) => String(one.value).length > 8_000).length,
		fromAway,
		serverKills,
		candidateKills,
		storageFaults
	};
}

const between = (from: number, to: number) => from + Math.random() * (to - from);

/** Holds the database so that nothing can be written to it, as a disk does that is full or gone. */
async function lockDatabase(file: string, ms: number) {
	const db = new Database(file);
	try {
		db.pragma('busy_timeout = 5000');
		db.exec('BEGIN IMMEDIATE');
		await sleep(ms);
		db.exec('ROLLBACK');
	} catch {
		// The server had it for all that time: then there is no fault this once.
	} finally {
		db.close();
	}
}
