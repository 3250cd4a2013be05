import { fork } from 'node:child_process';
import { once } from 'node:events';
import { mkdtempSync, rmSync } from 'node:fs';
import { constants, setPriority, tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import type { Browser } from '../stand-ins/crowd';
import { everyoneBegins, openLines, saveBody } from './bench-room';
import { CROWD_STAFF, makeCrowdSession } from './crowd-session';
import { Gun, percentile } from './load';
import { freePort, startServer } from './server-process';

/** How long requests of honest candidates take, ms. */
export type Latency = { median: number; p99: number; requests: number };
export type HostileFigures = { quiet: Latency; hostile: Latency; attacks: Record<string, Record<string, number>> };

const HONEST = 500;
/** What they do in a second, all together: they say that they are there, and a few of them answer. */
const BEATS_A_SECOND = HONEST / 5;
const SAVES_A_SECOND = Math.ceil(HONEST / 60);
const TICK_MS = 50;

/**
 * What 500 honest candidates notice of somebody who sends all that an outsider can: wrong numbers at the door, guesses at one
 * candidate, arrivals where somebody sits already, wrong and forgotten passwords, a copied cookie without its key, old answers
 * of nobody, bodies and forms that are far too large, made-up receipts, challenges without end; and of an author who has
 * drawings drawn that never end. Each in a loop, as fast as it is answered.
 */
export async function measureHostile(seconds: number): Promise<HostileFigures> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-hostile-'));
	const session = await makeCrowdSession(dir, HONEST);
	const port = await freePort();
	const server = await startServer({ port, host: '127.0.0.1', dataDir: dir, log: 'silent' });
	const gun = new Gun(port, 64);
	const url = `http://localhost:${port}`;
	try {
		const browsers = await everyoneBegins(port, session);
		const lines = await openLines(port, browsers);
		let n = 0;
		const measure = async (): Promise<Latency> => {
			const times: number[] = [];
			const waiting: Promise<unknown>[] = [];
			const fire = (path: string, bodyOf: (by: Browser) => string) => {
				const started = performance.now();
				const by = browsers[n++ % browsers.length];
				waiting.push(
					gun.fire({ path, body: bodyOf(by), by }).then((status) => {
						if (status !== 200) throw new Error(`an honest request was answered with ${status}`);
						times.push(performance.now() - started);
					})
				);
			};
			let [beats, saves] = [0, 0];
			const until = performance.now() + seconds * 1_000;
			while (performance.now() < until) {
				for (beats += (BEATS_A_SECOND * TICK_MS) / 1_000; beats >= 1; beats--) fire('/sit/api/beat', () => '{}');
				for (saves += (SAVES_A_SECOND * TICK_MS) / 1_000; saves >= 1; saves--)
					fire('/sit/api/answers', (by) => saveBody(1_000 + n, n, by));
				await sleep(TICK_MS);
			}
			await Promise.all(waiting);
			return { median: percentile(times, 50), p99: percentile(times, 99), requests: times.length };
		};
		await measure();
		const quiet = await measure();
		// A process of its own, so that what it costs to attack is not taken for what it costs to be attacked.
		const [{ number, family }] = session.people;
		const insider = await signedIn(url);
		const attacker = fork(
			'scripts/attack.ts',
			[url, session.code, browsers[0].cookieHeader(), insider, number, family],
			{
				execArgv: ['--import', 'tsx']
			}
		);
		// An attacker has a machine of their own: here they get what server and candidates leave of this one.
		setPriority(attacker.pid!, constants.priority.PRIORITY_LOW);
		await once(attacker, 'message');
		await sleep(1_000);
		const hostile = await measure();
		const told = once(attacker, 'message');
		attacker.send('stop');
		const [attacks] = (await told) as [HostileFigures['attacks']];
		attacker.kill();
		for (const close of lines) close();
		return { quiet, hostile, attacks };
	} finally {
		gun.close();
		server.kill('SIGKILL');
		rmSync(dir, { recursive: true, force: true });
	}
}

/** The cookie of somebody of the staff who may write papers. */
async function signedIn(url: string): Promise<string> {
	const { signIn: name, password } = CROWD_STAFF;
	const answer = await fetch(`${url}/sign-in`, {
		method: 'POST',
		redirect: 'manual',
		body: new URLSearchParams({ name, password, to: '/' }),
		headers: { origin: url }
	});
	return answer.headers
		.getSetCookie()
		.map((line) => line.split(';')[0])
		.join('; ');
}
