import { mkdtempSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { openDb } from '$lib/server/db';
import { runCrowd, type Acknowledged } from '../stand-ins/crowd';
import { accountOfRun, type AccountOfRun } from './account-of-run';
import { makeCrowdSession } from './crowd-session';
import { freePort, startServer } from './server-process';

export type Soak = { minutes: number; candidates: number; seed: number; log?: (line: string) => void };
export type Soaked = AccountOfRun & { acknowledged: number; serverKills: number; candidateKills: number };

/** A server is killed about so often, and after that a tenth of the candidates. */
const KILL_EVERY_MS: [number, number] = [15_000, 60_000];

/**
 * A room that is worked in for so long while the server and the candidates are killed at random: SIGKILL for the server,
 * for candidates a device that is gone from one moment to the next and signs in again. Then the books are checked.
 */
export async function soak({ minutes, candidates, seed, log = () => {} }: Soak): Promise<Soaked> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-soak-'));
	const { id, code, people } = await makeCrowdSession(dir, candidates);
	const port = await freePort();
	const start = () => startServer({ port, host: '127.0.0.1', dataDir: dir, log: 'silent' });
	let server = await start();
	const acknowledged: Acknowledged[] = [];
	const until = Date.now() + minutes * 60_000;
	let [serverKills, candidateKills, life] = [0, 0, 0];
	const stop = new AbortController();

	/** One device's life: killed, it comes again as the same device, in a browser of its own, until the time is over. */
	const live = async (group: typeof people, n: number) => {
		while (Date.now() < until) {
			const kill = new AbortController();
			const end = setTimeout(() => kill.abort(), Math.min(until - Date.now(), 20_000 + Math.random() * 120_000));
			await runCrowd({
				url: `http://localhost:${port}`,
				code,
				candidates: group.map((person) => ({ ...person, deviceId: `soak-${person.number}` })),
				seed: seed + n + ++life,
				tempo: 0.25,
				kinds: ['steady', 'slow', 'dropper', 'rapid', 'steady'],
				promptly: true,
				keepWorking: true,
				acknowledged: (one) => acknowledged.push(one),
				signal: AbortSignal.any([kill.signal, stop.signal])
			});
			clearTimeout(end);
			candidateKills += group.length;
		}
	};
	const size = Math.ceil(people.length / 20);
	const lives = Array.from({ length: 20 }, (_, n) => people.slice(n * size, (n + 1) * size))
		.filter((group) => group.length > 0)
		.map(live);
	while (Date.now() < until) {
		await sleep(Math.min(until - Date.now(), KILL_EVERY_MS[0] + Math.random() * (KILL_EVERY_MS[1] - KILL_EVERY_MS[0])));
		if (Date.now() >= until) break;
		const gone = new Promise((resolve) => server.once('exit', resolve));
		server.kill('SIGKILL');
		await gone;
		serverKills++;
		await sleep(Math.random() * 2_000);
		server = await start();
		log(
			`${serverKills} kills of the server, ${candidateKills} of candidates, ${acknowledged.length} answers acknowledged`
		);
	}
	stop.abort();
	await Promise.all(lives);
	const gone = new Promise((resolve) => server.once('exit', resolve));
	server.kill('SIGKILL');
	await gone;
	const db = await openDb(join(dir, 'otium.sqlite'));
	const account = await accountOfRun(db, id, acknowledged);
	await db.destroy();
	rmSync(dir, { recursive: true });
	return { ...account, acknowledged: acknowledged.length, serverKills, candidateKills };
}
