import type { ChildProcess } from 'node:child_process';
import { mkdtempSync, readFileSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { setTimeout as sleep } from 'node:timers/promises';
import { DEMO_PAPERS } from '$lib/server/demo';
import { rightAnswer } from '$core/marking';
import { Browser } from '../stand-ins/crowd';
import { CROWD_STAFF, makeCrowdSession, type CrowdSession } from './crowd-session';
import { Gun, listen, type Shot } from './load';
import { freePort, startServer } from './server-process';

/** What a room of so many costs. */
export type RoomFigures = {
	sittings: number;
	savesASecond: number;
	/** Processor time of the server for a save and for a beat, ms: what one more candidate costs, whoever else is there. */
	cpuMsASave: number;
	cpuMsABeat: number;
	/** Of the server's process, beside what it takes with a few in the room. */
	kibEach: number;
	/** Until the live room's page and its first picture are there. */
	openMs: number;
	/** Everyone's line comes back at once: until each has its picture again and its kept answer on the disk. */
	returnSeconds: number;
};

const QUESTIONS = DEMO_PAPERS[0].paper.parts
	.flatMap((part) => part.questions)
	.filter((one) => one.kind !== 'calculated');

type Answered = { questionId: string; value: unknown };
/** What each device may answer, under the names that it was given. */
const answersOf = new WeakMap<Browser, Answered[]>();
const UNNAMED: Answered[] = QUESTIONS.map((question) => ({ questionId: question.id, value: rightAnswer(question) }));

/** An answer to the nth question that fits it. @param by whose names it goes by; none: it is not meant to be saved */
export function saveBody(seq: number, n: number, by?: Browser): string {
	const all = (by && answersOf.get(by)) ?? UNNAMED;
	return JSON.stringify({ revisions: [{ seq, ...all[n % all.length], marked: false, struck: [], inViewMs: 4_000 }] });
}

type Sent = { id: string; kind: string; choices?: { id: string }[] };
/** What fits a question as a device was sent it: as long as the right answer would be. */
function fitting({ id, kind, choices = [] }: Sent): Answered {
	if (kind === 'true_false') return { questionId: id, value: true };
	if (kind === 'single') return { questionId: id, value: choices[0].id };
	if (kind === 'multiple') return { questionId: id, value: choices.slice(0, 2).map((choice) => choice.id) };
	return { questionId: id, value: ['short', 'numeric', 'essay'].includes(kind) ? '7.25' : null };
}

/** Candidates in turn, each with a number of their own that goes up, through the questions of the paper. */
export function saver(browsers: Browser[]): () => Shot {
	let n = 0;
	return () => {
		const turn = Math.floor(n / browsers.length);
		const by = browsers[n % browsers.length];
		const shot = { path: '/sit/api/answers', body: saveBody(turn + 1, turn, by), by };
		n++;
		return shot;
	};
}

/** Candidates in turn, each of whose devices says that it is there. */
export function beater(browsers: Browser[]): () => Shot {
	let n = 0;
	return () => ({ path: '/sit/api/beat', body: '{}', by: browsers[n++ % browsers.length] });
}

/** Brings every candidate to work, some at a time; returns their devices. */
export async function everyoneBegins(port: number, { code, people }: CrowdSession): Promise<Browser[]> {
	const browsers: Browser[] = [];
	const waiting = people.map((person, i) => ({ ...person, i }));
	const worker = async () => {
		for (let next = waiting.pop(); next; next = waiting.pop()) {
			const { number, family, i } = next;
			const browser = new Browser(`http://localhost:${port}`);
			const met = await browser.post('/sit/api/knock', { code, number, family });
			await browser.post('/sit/api/arrive', {
				note: met.body.note,
				commandId: `arrive-${number}`,
				deviceName: 'Bench',
				publicKey: browser.publicKey
			});
			const begun = await browser.post('/sit/api/begin', { commandId: `begin-${number}` });
			if (begun.status !== 200) throw new Error(`${number} could not begin: ${JSON.stringify(begun.body)}`);
			const { body } = await browser.get('/sit/api/paper');
			answersOf.set(browser, (body.questions as Sent[]).map(fitting));
			browsers[i] = browser;
		}
	};
	await Promise.all(Array.from({ length: 8 }, worker));
	return browsers;
}

/** The line of each device, until the returned functions are called. @param openedAt when each was opened */
export function openLines(
	port: number,
	browsers: Browser[],
	openedAt = new Map<Browser, number>()
): Promise<(() => void)[]> {
	return Promise.all(
		browsers.map(async (one) => {
			const close = await listen(port, one.addressOf('/sit/api/stream'), one.cookieHeader(), () => {});
			openedAt.set(one, performance.now());
			return close;
		})
	);
}

/** The cookie of somebody who may look on. */
export async function staffCookie(port: number): Promise<string> {
	const form = new URLSearchParams({ name: CROWD_STAFF.signIn, password: CROWD_STAFF.password, to: '/' });
	const response = await fetch(`http://localhost:${port}/sign-in`, {
		method: 'POST',
		body: form,
		headers: { origin: `http://localhost:${port}` },
		redirect: 'manual'
	});
	return response.headers
		.getSetCookie()
		.map((line) => line.split(';')[0])
		.join('; ');
}

/**
 * So many come first and make themselves heard, so that a server has read all of its code, and has the room in which it
 * puts what a request leaves behind, before it is asked what one more of them takes.
 */
const BEFORE = 20;
const HEARD_SECONDS = 3;

/** A room in which everyone is at work with their line open, and what each holds of the server's memory. */
export async function fillRoom(port: number, server: ChildProcess, gun: Gun, session: CrowdSession) {
	const first = await everyoneBegins(port, { ...session, people: session.people.slice(0, BEFORE) });
	const lines = await openLines(port, first);
	await gun.rate(HEARD_SECONDS, beater(first));
	const restingMiB = await residentMiB(server);
	const later = await everyoneBegins(port, { ...session, people: session.people.slice(BEFORE) });
	lines.push(...(await openLines(port, later)));
	await sleep(1_500);
	const kibEach = (((await residentMiB(server)) - restingMiB) * 1_024) / later.length;
	return { browsers: [...first, ...later], lines, restingMiB, kibEach };
}

/** Resident memory of a server that collects, MiB, without what it no longer uses. */
export async function residentMiB(server: ChildProcess): Promise<number> {
	for (let again = 0; again < 3; again++) {
		server.kill('SIGUSR2');
		await sleep(500);
	}
	const status = readFileSync(`/proc/${server.pid}/status`, 'utf8');
	return Number(/VmRSS:\s+(\d+) kB/.exec(status)![1]) / 1_024;
}

/** Measures a room of its own, on a server of its own. */
export async function measureRoom(sittings: number): Promise<RoomFigures> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-bench-room-'));
	const session = await makeCrowdSession(dir, sittings);
	const port = await freePort();
	const server = await startServer({ port, host: '127.0.0.1', dataDir: dir, log: 'silent', collects: true });
	const gun = new Gun(port, 64);
	try {
		const { browsers, lines, kibEach } = await fillRoom(port, server, gun, session);
		const save = saver(browsers);
		const beat = beater(browsers);
		await gun.rate(1, save);
		const cpuMsASave = await cpuOf(server.pid!, () => gun.rate(3, save));
		const cpuMsABeat = await cpuOf(server.pid!, () => gun.rate(3, beat));
		const openedAt = new Map<Browser, number>();
		const stopBeats = beats(gun, browsers, openedAt);
		const savesASecond = await gun.rate(3, save);
		const openMs = await opening(port);
		for (const close of lines) close();
		await sleep(500);
		const started = performance.now();
		const back = await openLines(port, browsers, openedAt);
		await Promise.all(
			browsers.map(async (by, i) => {
				const shot = { path: '/sit/api/answers', body: saveBody(40_000, i, by), by };
				const status = await gun.fire(shot).catch(() => gun.fire(shot));
				if (status !== 200) throw new Error(`a kept answer was answered with ${status}`);
			})
		);
		const returnSeconds = (performance.now() - started) / 1_000;
		for (const close of back) close();
		stopBeats();
		return { sittings, savesASecond, cpuMsASave, cpuMsABeat, kibEach, openMs, returnSeconds };
	} finally {
		gun.close();
		server.kill('SIGKILL');
		rmSync(dir, { recursive: true, force: true });
	}
}

/** Linux counts a process's time in hundredths of a second. */
const TICK_CPU_MS = 10;

/** Processor time that a process took for each of the requests that were answered in these three seconds, ms. */
async function cpuOf(pid: number, work: () => Promise<number>): Promise<number> {
	const spent = () => {
		const fields = readFileSync(`/proc/${pid}/stat`, 'utf8').split(') ')[1].split(' ');
		return (Number(fields[11]) + Number(fields[12])) * TICK_CPU_MS;
	};
	const before = spent();
	const rate = await work();
	return (spent() - before) / (rate * 3);
}

/**
 * Every device says that it is there as often as the server asks: every five seconds, together at most 200 a second. Like a
 * candidate's page, none does so sooner than that after its line was opened, which says the same.
 */
function beats(gun: Gun, browsers: Browser[], openedAt: Map<Browser, number>): () => void {
	const TICK_MS = 100;
	const aSecond = Math.min(200, browsers.length / 5);
	const turnMs = (browsers.length / aSecond) * 1_000;
	const beat = beater(browsers);
	const timer = setInterval(() => {
		for (let n = 0; n < (aSecond * TICK_MS) / 1_000; n++) {
			const shot = beat();
			const isDue = performance.now() - (openedAt.get(shot.by!) ?? -Infinity) >= turnMs;
			if (isDue) void gun.fire(shot).catch(() => {});
		}
	}, TICK_MS);
	return () => clearInterval(timer);
}

/** The page, and the first picture on its line: what somebody waits for who opens the room; the middle one of five. */
async function opening(port: number): Promise<number> {
	const cookie = await staffCookie(port);
	const times: number[] = [];
	for (let i = 0; i < 5; i++) {
		const started = performance.now();
		const page = await (await fetch(`http://localhost:${port}/live/s`, { headers: { cookie } })).text();
		if (!page.includes('Sail Loft')) throw new Error('the live room did not open');
		await new Promise<void>((resolve, reject) => {
			const line = listen(port, '/live/s/stream', cookie, (event) => {
				if (event !== 'picture') return;
				void line.then((close) => close());
				resolve();
			});
			line.catch(reject);
		});
		times.push(performance.now() - started);
	}
	return times.sort((a, b) => a - b)[2];
}
