import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { cpus, tmpdir, totalmem } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import Database from 'better-sqlite3';
import { Browser } from '../stand-ins/crowd';
import { measurePreparing } from './bench-prepare';
import { CROWD_STAFF, makeCrowdSession, type CrowdSession } from './crowd-session';
import { Gun, listen, percentile, type Shot } from './load';
import { numberOption, readOptions } from './options';
import { freePort, startServer } from './server-process';

const options = readOptions({ seconds: { type: 'string' }, sittings: { type: 'string' } });
const seconds = numberOption(options.seconds, 'seconds', 8, 600);
const sittings = numberOption(options.sittings, 'sittings', 200, 5_000);

const dir = mkdtempSync(join(tmpdir(), 'otium-bench-'));
const session = await makeCrowdSession(dir, sittings);
const port = await freePort();
const server = await startServer({ port, host: '127.0.0.1', dataDir: dir, log: 'silent' });
const gun = new Gun(port, 64);
process.on('exit', () => {
	server.kill('SIGKILL');
	rmSync(dir, { recursive: true, force: true });
});

console.log(
	`${cpus().length} cores, ${Math.round(totalmem() / 2 ** 30)} GiB; Node ${process.versions.node}; ${sittings} sittings live; ${Math.max(4, seconds)} rounds of a second each way, server and load on the same machine.\n`
);

const restingMiB = await residentMiB();
const cookies = await everyoneBegins(session);
const lines = await Promise.all(cookies.map((cookie) => listen(port, '/sit/api/stream', cookie, () => {})));
await sleep(1_500);
const memoryKiB = ((await residentMiB()) - restingMiB) * 1_024;

const empty = () => ({ path: '/health', body: saveBody(1, 1) });
const save = saver(cookies);
// Warm both ways first, then measure them in turn, so that neither has the better half of the run.
await gun.rate(2, empty);
await gun.rate(2, save);
// The machine's own speed changes from second to second, so the two are compared in short rounds, side by side.
const rounds: { empty: number; save: number }[] = [];
for (let round = 0; round < Math.max(4, seconds); round++) {
	rounds.push({ empty: await gun.rate(1, empty), save: await gun.rate(1, save) });
}
const emptyRate = median(rounds.map((round) => round.empty));
const saveRate = median(rounds.map((round) => round.save));
const ratios = rounds.map((round) => round.save / round.empty);
const commitRate = bareCommits(seconds / 2);
const delays = await screenDelays();

row('Empty endpoint', `${Math.round(emptyRate)} a second`);
row(
	'Durable answer saves',
	`${Math.round(saveRate)} a second`,
	`${median(ratios).toFixed(2)} of the empty endpoint, ${Math.min(...ratios).toFixed(2)} to ${Math.max(...ratios).toFixed(2)} (aim: 0.8)`
);
row(
	'Bare SQLite commits, one row each',
	`${Math.round(commitRate)} a second`,
	`saves are ${(saveRate / commitRate).toFixed(1)} times that`
);
row(
	'From acknowledged save to the proctor’s screen',
	`median ${Math.round(percentile(delays, 50))} ms`,
	`99 % within ${Math.round(percentile(delays, 99))} ms (aim: 250), ${delays.length} saves`
);
row(
	'Resident memory',
	`${Math.round(memoryKiB / sittings)} KiB a live sitting`,
	`${Math.round(restingMiB)} MiB at rest`
);

for (const close of lines) close();
gun.close();
server.kill('SIGKILL');

const few = await measurePreparing(1_000);
const many = await measurePreparing(10_000);
const times = (a: number, b: number) => `${(b / a).toFixed(1)} times that of 1,000 people`;
row(
	'Importing 10,000 people, checked and done',
	`${many.importSeconds.toFixed(1)} s`,
	`${times(few.importSeconds, many.importSeconds)} (aim: under 20 s)`
);
row(
	'Longest wait of anybody else meanwhile',
	`${Math.round(many.longestWaitMs)} ms`,
	`at 1,000: ${Math.round(few.longestWaitMs)} ms`
);
row(
	'A page of the list of 10,000',
	`${many.listMs.toFixed(1)} ms`,
	`${times(few.listMs, many.listMs)} (aim: under 100 ms)`
);
row(
	'A search among 10,000',
	`${many.searchMs.toFixed(1)} ms`,
	`${times(few.searchMs, many.searchMs)} (aim: under 100 ms)`
);
row(
	'Checking a session of 500',
	`${Math.round(many.checkMs)} ms`,
	`${times(few.checkMs, many.checkMs)} (aim: under 200 ms)`
);
process.exit(0);

function row(what: string, value: string, beside = '') {
	console.log(`${what.padEnd(48)} ${value.padEnd(24)} ${beside}`);
}

/** Brings every candidate to work; returns their cookies. */
async function everyoneBegins({ code, people }: CrowdSession): Promise<string[]> {
	const cookies: string[] = [];
	for (const { number, family } of people) {
		const browser = new Browser(`http://localhost:${port}`, `bench-${number}`);
		const met = await browser.post('/sit/api/knock', { code, number, family });
		await browser.post('/sit/api/arrive', { note: met.body.note, commandId: `arrive-${number}`, deviceName: 'Bench' });
		const begun = await browser.post('/sit/api/begin', { commandId: `begin-${number}` });
		if (begun.status !== 200) throw new Error(`${number} could not begin: ${JSON.stringify(begun.body)}`);
		cookies.push(browser.cookieHeader());
	}
	return cookies;
}

function saveBody(seq: number, question: number): string {
	return JSON.stringify({
		revisions: [{ seq, questionId: `tc-${question}`, value: 'a', marked: false, struck: [], inViewMs: 4_000 }]
	});
}

/** Candidates in turn, each with a number of their own that goes up, through the questions of the paper. */
function saver(cookies: string[]): () => Shot {
	let n = 0;
	return () => {
		const turn = Math.floor(n / cookies.length);
		const shot = {
			path: '/sit/api/answers',
			body: saveBody(turn + 1, (turn % 24) + 1),
			cookie: cookies[n % cookies.length]
		};
		n++;
		return shot;
	};
}

/** What this disk does when every row is a commit of its own. */
function bareCommits(seconds: number): number {
	const db = new Database(join(dir, 'bare.sqlite'));
	db.pragma('journal_mode = WAL');
	db.pragma('synchronous = FULL');
	db.exec('CREATE TABLE answer (id INTEGER PRIMARY KEY, value TEXT)');
	const insert = db.prepare('INSERT INTO answer (value) VALUES (?)');
	const started = performance.now();
	let done = 0;
	while (performance.now() - started < seconds * 1_000) {
		insert.run(saveBody(1, 1));
		done++;
	}
	db.close();
	return done / ((performance.now() - started) / 1_000);
}

/**
 * How long after a candidate reads "saved" the proctor's screen hears of it: at about what a room of this size does,
 * an answer a minute from each.
 */
async function screenDelays(): Promise<number[]> {
	const staff = new Browser(`http://localhost:${port}`);
	const form = new URLSearchParams({ name: CROWD_STAFF.signIn, password: CROWD_STAFF.password, to: '/' });
	const response = await fetch(`http://localhost:${port}/sign-in`, {
		method: 'POST',
		body: form,
		headers: { origin: `http://localhost:${port}` },
		redirect: 'manual'
	});
	const cookie =
		response.headers
			.getSetCookie()
			.map((line) => line.split(';')[0])
			.join('; ') || staff.cookieHeader();
	const waiting = new Map<string, number>();
	const delays: number[] = [];
	const close = await listen(port, '/live/s/stream', cookie, (event, data) => {
		if (event !== 'change') return;
		const now = performance.now();
		for (const seat of (JSON.parse(data) as { seats: { id: string }[] }).seats) {
			const saved = waiting.get(seat.id);
			if (saved === undefined) continue;
			delays.push(Math.max(0, now - saved));
			waiting.delete(seat.id);
		}
	});
	await sleep(500);
	const pause = Math.max(2, 60_000 / sittings / 4);
	const count = Math.min(600, Math.ceil((seconds * 1_500) / pause));
	for (let n = 0; n < count; n++) {
		const i = n % cookies.length;
		void gun
			.fire({ path: '/sit/api/answers', body: saveBody(1_000_000 + n, (n % 24) + 1), cookie: cookies[i] })
			.then(() => waiting.set(`t${i}`, performance.now()));
		await sleep(pause);
	}
	await sleep(1_000);
	close();
	if (waiting.size > 0) throw new Error(`${waiting.size} saves never reached the proctor's screen`);
	return delays;
}

async function residentMiB(): Promise<number> {
	await sleep(500);
	const status = readFileSync(`/proc/${server.pid}/status`, 'utf8');
	return Number(/VmRSS:\s+(\d+) kB/.exec(status)![1]) / 1_024;
}

function median(values: number[]): number {
	return percentile(values, 50);
}
