import type { ChildProcess } from 'node:child_process';
import { randomUUID } from 'node:crypto';
import { cpSync, existsSync, mkdirSync, mkdtempSync, readdirSync, readFileSync, renameSync, rmSync } from 'node:fs';
import { tmpdir } from 'node:os';
import { basename, join } from 'node:path';
import { test, type Browser, type Page } from '@playwright/test';
import { IN_THE_ROOM, type Actor, type CommandBody } from '../src/core/sitting';
import { connectDb, isUnavailable, type Db } from '../src/lib/server/db';
import { demoClock, demoDevices, DEMO_PASSWORD, seedDemo, seedWithAutumn, setDemoClock } from '../src/lib/server/demo';
import { addStaff } from '../src/lib/server/identity';
import { startOtium, type Otium } from '../src/lib/server/otium';
import { findSessions } from '../src/lib/server/session';
import { act } from '../src/lib/server/sitting';
import { freePort, startServer } from '../scripts/server-process';
import { Browser as Device } from '../stand-ins/crowd';
import { faultsOfPages, KeptContexts, type ContextOptions } from './kept-contexts';

// By the name of another machine as well: the browsers know the way.
process.env.OTIUM_HOSTS = 'exams.example';

/** The proctor in whose name tests act. */
export const PROCTOR: Actor = { role: 'proctor', id: 'test' };

/** What a house is made of, and when. */
export type Furnished = {
	/** What is in it at first: a demo day, if nothing else is said. */
	furnish?: typeof seedDemo;
	/** The time of today at which it is furnished. */
	made?: string;
	/** The time at which its server starts, if that is later. */
	at?: string;
};

/**
 * Days that have been furnished by this version today, to be copied: making one takes seconds, and most files begin with the
 * same. They lie on the disk, for all that run tests.
 */
const DAYS = join(
	'node_modules/.otium/days',
	`${readFileSync('node_modules/.otium/built', 'utf8')} ${new Date().toDateString()}`
);

/** A data folder of one's own that is furnished so, as of that time today. */
async function furnished(made: string, furnish: typeof seedDemo): Promise<string> {
	const dir = mkdtempSync(join(tmpdir(), 'otium-e2e-'));
	// What a test furnishes by a function of its own is made for it alone.
	if (furnish !== seedDemo && furnish !== seedWithAutumn) await make(dir, made, furnish);
	else {
		const day = join(DAYS, `${made.replace(':', '')}-${furnish.name}`);
		if (!existsSync(day)) await makeOnce(day, made, furnish);
		cpSync(day, dir, { recursive: true });
	}
	return dir;
}

/** Makes that day; whoever makes the same one meanwhile, it is there once. */
async function makeOnce(day: string, made: string, furnish: typeof seedDemo) {
	const part = `${day}.${process.pid}.part`;
	mkdirSync(part, { recursive: true });
	// What an earlier version or day made.
	for (const old of readdirSync(join(DAYS, '..')))
		if (old !== basename(DAYS)) rmSync(join(DAYS, '..', old), { recursive: true, force: true });
	await make(part, made, furnish);
	try {
		renameSync(part, day);
	} catch (error) {
		rmSync(part, { recursive: true });
		if (!existsSync(day)) throw error;
	}
}

async function make(dir: string, clockTime: string, furnish: typeof seedDemo) {
	const now = setDemoClock(dir, clockTime);
	const clock = { at: now };
	const otium = await startOtium({ dataDir: dir, now: () => clock.at, sweep: false, logLevel: 'silent' });
	await furnish(otium, clock, now);
	await otium.stop();
}

/** Ports whose house has closed. The next takes one of them: what a browser knows of its scripts holds for one address. */
const ports: number[] = [];

/** How often a device says that it is there, as the player does. */
const BEAT_MS = 5_000;

/** As after the first start of an empty folder: one coordinator of all sites. */
export const oneCoordinator = ({ db }: Pick<Otium, 'db'>) =>
	addStaff(db, {
		signIn: 'ode',
		name: 'Maren Ode',
		password: DEMO_PASSWORD,
		roles: [{ role: 'coordinator', siteId: null }]
	});

/** The built server on a demo day of its own. */
export class House {
	url = '';
	#dir = '';
	#port = 0;
	#server: ChildProcess | null = null;
	#db: Db | null = null;
	#contexts = new KeptContexts();
	#beats: (() => void)[] = [];
	/** Sign in on the page for it, as people do; for tests of signing in. */
	signsInByHand = false;

	get dir() {
		return this.#dir;
	}

	async open({ furnish = seedDemo, made = '09:42', at = made }: Furnished = {}) {
		this.#dir = await furnished(made, furnish);
		setDemoClock(this.#dir, at);
		this.#port = ports.pop() ?? (await freePort());
		this.url = `http://localhost:${this.#port}`;
		await this.start();
	}

	async start() {
		this.#server = await startServer({ port: this.#port, host: '127.0.0.1', dataDir: this.#dir, log: 'error' });
	}

	/** As when somebody pulls the plug: nobody else has the file open then. */
	async kill() {
		await this.#forgetDb();
		const server = this.#server;
		// It never started: what was made before it failed, and says so.
		if (server === null) return;
		if (server.exitCode !== null || server.signalCode !== null) return;
		const gone = new Promise((resolve) => server.once('exit', resolve));
		server.kill('SIGKILL');
		await gone;
	}

	/** The clock of the demo day. */
	async now(): Promise<number> {
		return (await demoClock(this.#dir))();
	}

	/** The same day at another time: the server is away meanwhile. */
	async moveTo(clockTime: string) {
		await this.kill();
		setDemoClock(this.#dir, clockTime);
		// As if it and whoever is signed in had been there meanwhile.
		const seen_at = await this.now();
		await this.read(async (db) => {
			await db('staff_session').update({ seen_at, confirmed_at: seen_at });
			await db('meta')
				.where({ key: 'alive_at' })
				.update({ value: String(seen_at) });
		});
		await this.start();
	}

	async close() {
		await this.closeContexts();
		await this.kill();
		ports.push(this.#port);
		rmSync(this.#dir, { recursive: true, force: true });
	}

	async closeContexts() {
		for (const stop of this.#beats.splice(0)) stop();
		await this.#contexts.release();
	}

	/** A browser of its own: nothing is shared with any other. With options it is a new one. */
	async browser(browser: Browser, options?: ContextOptions): Promise<Page> {
		return this.#contexts.page(browser, this.url, options);
	}

	/** Somebody of the staff, who has just signed in; nothing is open yet but the browser, unless they did it by hand. */
	async staff(browser: Browser, name = 'ode', options?: ContextOptions): Promise<Page> {
		const page = await this.browser(browser, options);
		if (!this.signsInByHand) {
			const signedIn = await page.request.post('/sign-in', {
				form: { name, password: DEMO_PASSWORD, to: '/' },
				headers: { origin: this.url, accept: 'text/html' },
				maxRedirects: 0
			});
			if (signedIn.status() !== 303) throw new Error(`${name} could not sign in: ${signedIn.status()}`);
			return page;
		}
		await page.goto('/sign-in');
		await page.getByLabel('Name').fill(name);
		await page.getByLabel('Password').fill(DEMO_PASSWORD);
		await page.getByRole('button', { name: 'Sign in' }).click();
		await page.waitForURL((url) => url.pathname !== '/sign-in');
		return page;
	}

	/**
	 * Reads the database beside the server: what is really on the disk. Whoever writes here is a second writer, which the
	 * server never has otherwise: only while nothing is being done.
	 */
	async read<T>(work: (db: Db) => Promise<T>): Promise<T> {
		// Tests ask again and again until something is there: a connection takes longer than what is asked.
		const db = (this.#db ??= connectDb(join(this.#dir, 'otium.sqlite')));
		try {
			const result = await work(db);
			// What was written by hand is nobody's who acts after it: it stays without a seal, as from another program.
			await db.raw('DELETE FROM temp.row_changed');
			return result;
		} catch (error) {
			await this.#forgetDb();
			throw error;
		}
	}

	async #forgetDb() {
		const db = this.#db;
		this.#db = null;
		await db?.destroy();
	}

	/** Acts as the server does, which knows nothing of it before it looks again: only while nobody watches. */
	async act(sittingIds: string[], by: Actor, body: CommandBody): Promise<void> {
		const now = await this.now();
		const hub = { changed() {} } as unknown as Otium['hub'];
		const commands = sittingIds.map((sittingId) => ({ id: randomUUID(), sittingId, by, body }));
		const tried = () => this.read((db) => act({ db, now: () => now, hub }, commands));
		const outcomes = await untilNobodyWrites(tried);
		const refused = outcomes.find((outcome) => !outcome.ok);
		if (refused) throw new Error(`${body.kind} was refused: ${JSON.stringify(refused)}`);
	}

	/** Nobody really sits at the demo's devices: without this all of them would soon be lost lines. */
	async regainLines(sessionId?: string): Promise<void> {
		const ids: string[] = await this.read((db) =>
			db('sitting')
				.whereIn('state', IN_THE_ROOM)
				.modify((query) => sessionId && void query.where({ session_id: sessionId }))
				.pluck('id')
		);
		await this.act(ids, { role: 'system', id: 'line' }, { kind: 'regain_line' });
	}

	/**
	 * The demo's devices of a running session come back, and say that they are there until the test is over: for what takes
	 * longer on a slow machine than a line may be silent.
	 */
	async keepLines(session: string): Promise<void> {
		const { id, code } = await this.session(session);
		if (code === '') return;
		const known = demoDevices(this.#dir);
		const people: { number: string; family: string }[] = await this.read((db) =>
			db('sitting')
				.join('candidate', 'candidate.id', 'sitting.candidate_id')
				.where({ session_id: id })
				.whereIn('state', IN_THE_ROOM)
				.whereNotNull('device_epoch')
				.select('number', 'family')
		);
		const devices = await Promise.all(
			people.map(async ({ number, family }) => {
				const device = new Device(this.url, known.get(number));
				const met = await device.post('/sit/api/knock', { code, number, family });
				const asked = { note: met.body.note, commandId: randomUUID(), deviceName: 'College laptop' };
				await device.post('/sit/api/arrive', { ...asked, publicKey: device.publicKey });
				return device;
			})
		);
		const timer = setInterval(() => {
			// Those that the test has moved or freed are refused.
			for (const device of devices) device.post('/sit/api/beat', { at: 0 }).catch(() => {});
		}, BEAT_MS);
		this.#beats.push(() => clearInterval(timer));
	}

	/**
	 * Makes a running session let in by itself, past its last entry too and without watching, and takes one candidate off the simulated device
	 * that they sat at, so that a real browser can come in their place.
	 */
	async makeWayFor(
		session: string,
		number: string
	): Promise<{ id: string; code: string; number: string; family: string }> {
		const { id, code } = await this.session(session);
		const person = await this.read(async (db) => {
			const { rules: text } = await db('session').where({ id }).first('rules');
			const rules = JSON.parse(text);
			const timing = { ...rules.timing, lastEntryMinutes: 600 };
			const lockdown = { ...rules.lockdown, level: 'open' };
			await db('session')
				.where({ id })
				.update({ rules: JSON.stringify({ ...rules, admission: 'automatic', timing, lockdown }) });
			const person = await db('sitting')
				.join('candidate', 'candidate.id', 'sitting.candidate_id')
				.where({ session_id: id, number })
				.first('sitting.id', 'device_epoch', 'family');
			return person as { id: string; device_epoch: number | null; family: string };
		});
		if (person.device_epoch !== null) await this.act([person.id], PROCTOR, { kind: 'move_device' });
		return { id, code, number, family: person.family };
	}

	/** The session of that name: its id, and its door code if it has one. */
	async session(name: string): Promise<{ id: string; code: string }> {
		return this.read(async (db) => {
			const [session] = await findSessions(db, (query) => query.where('session.name', 'like', `${name}%`));
			return { id: session.id, code: session.doorCode ?? '' };
		});
	}
}

/** So often is tried what another writer was faster with. */
const MOST_TRIES = 40;

/**
 * What the server wrote since this read is a conflict between two writers: nothing was done, and it can be done again. A
 * busy server writes again and again.
 */
async function untilNobodyWrites<T>(work: () => Promise<T>): Promise<T> {
	for (let tries = 1; ; tries++) {
		try {
			return await work();
		} catch (error) {
			if (!isUnavailable(error) || tries === MOST_TRIES) throw error;
			await new Promise((done) => setTimeout(done, 50 + 200 * Math.random()));
		}
	}
}

/** One server for the tests of a file. */
export function house(furnished?: Furnished): House {
	const one = new House();
	test.beforeAll(async () => {
		test.setTimeout(180_000);
		await one.open(furnished);
	});
	test.afterEach(async () => {
		await one.closeContexts();
		const faults = faultsOfPages();
		if (faults.length > 0) throw new Error(`A page threw: ${faults.join(', ')}`);
	});
	test.afterAll(() => one.close());
	return one;
}

/** A candidate at the door, up to "Is this you?" answered with yes; `asked` looks at that first. */
export async function arrive(
	page: Page,
	code: string,
	number: string,
	family: string,
	asked: () => Promise<void> = async () => {}
) {
	await page.goto('/sit');
	await page.getByLabel('Code').fill(code);
	await page.getByLabel('Candidate number').fill(number);
	await page.getByLabel('Family name').fill(family);
	await page.getByTestId('knock').click();
	await page.getByTestId('yes').waitFor();
	await asked();
	await page.getByTestId('yes').click();
}

/** Chooses the first option of a list that has this text in it. */
export async function choose(page: Page, id: string, text: string) {
	const option = page.locator(`#${id} option`, { hasText: text }).first();
	await page.locator(`#${id}`).selectOption((await option.getAttribute('value'))!);
}

/** Opens a staff page and waits until its keys and buttons are listening. */
export async function go(page: Page, path: string) {
	await page.goto(path);
	await page.locator('[data-ready=true]').waitFor();
}
