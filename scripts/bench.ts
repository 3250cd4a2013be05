import { mkdtempSync, rmSync } from 'node:fs';
import { cpus, tmpdir, totalmem } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import Database from 'better-sqlite3';
import { measureClosing } from './bench-closing';
import { measurePreparing } from './bench-prepare';
import { digestOf } from '$lib/server/identity';
import { RequestSignatures } from '../src/lib/server/identity/request-signatures';
import { DeviceKey } from '../stand-ins/crowd/signing';
import { beater, fillRoom, measureRoom, saveBody, saver, staffCookie } from './bench-room';
import { row, tellCalm, tellGrants, tellHostile, tellPages, tellPapers, tellScroll } from './bench-told';
import { makeCrowdSession } from './crowd-session';
import { Gun, listen, percentile } from './load';
import { numberOption, readOptions } from './options';
import { freePort, startServer } from './server-process';
import { soak } from './soak';

const options = readOptions({
	seconds: { type: 'string' },
	sittings: { type: 'string' },
	largest: { type: 'string' },
	soak: { type: 'boolean' },
	calm: { type: 'boolean' },
	pages: { type: 'boolean' },
	hostile: { type: 'boolean' },
	scroll: { type: 'boolean' },
	papers: { type: 'boolean' },
	closing: { type: 'boolean' },
	grants: { type: 'boolean' },
	minutes: { type: 'string' },
	candidates: { type: 'string' }
});
if (options.soak) {
	const minutes = numberOption(options.minutes, 'minutes', 30, 600);
	const candidates = numberOption(options.candidates, 'candidates', 1_000, 5_000);
	console.log(`${candidates} candidates for ${minutes} minutes, with kills at random.`);
	const soaked = await soak({ minutes, candidates, seed: 11, log: console.log });
	console.log(soaked);
	const isSound =
		soaked.lost.length + soaked.twoStates.length === 0 && soaked.ledgerAddsUp && soaked.recordBroken === null;
	console.log(isSound ? 'Nothing acknowledged was lost; the books are in order.' : 'Something is wrong: see above.');
	process.exit(isSound ? 0 : 1);
}
if (options.calm) {
	await tellCalm(numberOption(options.largest, 'largest', 5_000, 5_000));
	process.exit(0);
}
if (options.pages) {
	await tellPages(numberOption(options.largest, 'largest', 5_000, 5_000));
	process.exit(0);
}
if (options.hostile) {
	await tellHostile(numberOption(options.seconds, 'seconds', 20, 600));
	process.exit(0);
}
if (options.closing) {
	const figures = await measureClosing();
	for (const [name, value] of Object.entries(figures)) console.log(`${name.padEnd(18)} ${value.toFixed(2)}`);
	process.exit(0);
}
if (options.grants) {
	await tellGrants();
	process.exit(0);
}
if (options.papers) {
	await tellPapers();
	process.exit(0);
}
if (options.scroll) {
	await tellScroll(numberOption(options.candidates, 'candidates', 1_000, 5_000));
	process.exit(0);
}
const seconds = numberOption(options.seconds, 'seconds', 8, 600);
const sittings = numberOption(options.sittings, 'sittings', 200, 5_000);

const dir = mkdtempSync(join(tmpdir(), 'otium-bench-'));
const session = await makeCrowdSession(dir, sittings);
const port = await freePort();
const server = await startServer({ port, host: '127.0.0.1', dataDir: dir, log: 'silent', collects: true });
const gun = new Gun(port, 64);
process.on('exit', () => {
	server.kill('SIGKILL');
	rmSync(dir, { recursive: true, force: true });
});

console.log(
	`${cpus().length} cores, ${Math.round(totalmem() / 2 ** 30)} GiB; Node ${process.versions.node}; ${sittings} sittings live; ${Math.max(4, seconds)} rounds of a second each way, server and load on the same machine.\n`
);

const { browsers, lines, restingMiB, kibEach } = await fillRoom(port, server, gun, session);

// Signed as well, so that both carry what it costs the load on the same machine to sign.
const empty = () => ({ path: '/health', body: saveBody(1, 1), by: browsers[0] });
const save = saver(browsers);
// As empty, but asked for by a device that has to prove itself, as for an answer.
const beat = beater(browsers);
// Warm both ways first, then measure them in turn, so that neither has the better half of the run.
await gun.rate(2, empty);
await gun.rate(2, save);
// The machine's own speed changes from second to second, so the two are compared in short rounds, side by side.
const rounds: { empty: number; save: number; beat: number }[] = [];
for (let round = 0; round < Math.max(4, seconds); round++) {
	rounds.push({ empty: await gun.rate(1, empty), save: await gun.rate(1, save), beat: await gun.rate(1, beat) });
}
const emptyRate = median(rounds.map((round) => round.empty));
const saveRate = median(rounds.map((round) => round.save));
const ratios = rounds.map((round) => round.save / round.empty);
const signedRatios = rounds.map((round) => round.save / round.beat);
const commitRate = bareCommits(seconds / 2);
const delays = await screenDelays();

row('Empty endpoint', `${Math.round(emptyRate)} a second`);
row(
	'Durable answer saves',
	`${Math.round(saveRate)} a second`,
	`${median(ratios).toFixed(2)} of the empty endpoint, ${Math.min(...ratios).toFixed(2)} to ${Math.max(...ratios).toFixed(2)} (aim: 0.9)`
);
row(
	'Beside a signed request that saves nothing',
	median(signedRatios).toFixed(2),
	`${Math.min(...signedRatios).toFixed(2)} to ${Math.max(...signedRatios).toFixed(2)}; a beat, ${Math.round(median(rounds.map((round) => round.beat)))} a second`
);
const signingMs = await costOfSigning();
row('Checking the signature of a request', `${signingMs.toFixed(2)} ms`, '(aim: under 0.3)');
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
	`${Math.round(kibEach)} KiB a live sitting`,
	`${Math.round(restingMiB)} MiB with twenty of them (aim: under 100 KiB)`
);

for (const close of lines) close();
gun.close();
server.kill('SIGKILL');

const largest = numberOption(options.largest, 'largest', 5_000, 5_000);
const rooms = [];
for (const size of [100, 1_000, largest]) rooms.push(await measureRoom(size));
const [smallest] = rooms;
for (const room of rooms) {
	const against = (value: number, of: number) => (room === smallest ? '' : `${(value / of).toFixed(2)} of that of 100`);
	console.log(`\nA room of ${room.sittings}`);
	row(
		'  Durable answer saves',
		`${Math.round(room.savesASecond)} a second`,
		against(room.savesASecond, smallest.savesASecond)
	);
	row(
		'  Processor time of the server for a save',
		`${room.cpuMsASave.toFixed(2)} ms`,
		against(room.cpuMsASave, smallest.cpuMsASave)
	);
	row(
		'  Processor time of the server for a beat',
		`${room.cpuMsABeat.toFixed(2)} ms`,
		against(room.cpuMsABeat, smallest.cpuMsABeat)
	);
	row('  Resident memory', `${Math.round(room.kibEach)} KiB a sitting`, against(room.kibEach, smallest.kibEach));
	row('  Opening the live room', `${Math.round(room.openMs)} ms`, room.sittings === 1_000 ? '(aim: under 1 s)' : '');
	row(
		'  Everyone’s line comes back at once',
		`${room.returnSeconds.toFixed(1)} s`,
		'each with its picture and a kept answer'
	);
}
console.log();

await tellCalm(largest);
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

/** What the server does to check one signature, ms. */
async function costOfSigning(): Promise<number> {
	const key = new DeviceKey();
	const signatures = new RequestSignatures();
	const body = saveBody(1, 1);
	const check = () => {
		const headers = key.headers('POST', '/sit/api/answers', body);
		return () => {
			const isOurs = digestOf(body) === headers['content-digest'];
			if (!isOurs) throw new Error('a body was not the one that was signed');
			return signatures.check('bench', key.publicKey, 'POST', '/sit/api/answers', (name) => headers[name] ?? null);
		};
	};
	const first = await check()();
	if (first.outcome !== 'anew') throw new Error('a device counts under a mark that it was not given');
	key.mark = first.mark;
	const checks = Array.from({ length: 5_000 }, check);
	const started = performance.now();
	// Some at once, as they come under load: each alone would mostly wait for its turn.
	for (let from = 0; from < checks.length; from += 50)
		for (const checked of await Promise.all(checks.slice(from, from + 50).map((one) => one())))
			if (checked.outcome !== 'right') throw new Error('a right signature was refused');
	return (performance.now() - started) / checks.length;
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
	const cookie = await staffCookie(port);
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
		const i = n % browsers.length;
		void gun
			.fire({ path: '/sit/api/answers', body: saveBody(20_000 + n, n, browsers[i]), by: browsers[i] })
			.then(() => waiting.set(`t${i}`, performance.now()));
		await sleep(pause);
	}
	await sleep(1_000);
	close();
	if (waiting.size > 0) throw new Error(`${waiting.size} saves never reached the proctor's screen`);
	return delays;
}

function median(values: number[]): number {
	return percentile(values, 50);
}
