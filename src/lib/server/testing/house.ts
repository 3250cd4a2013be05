import { rmSync } from 'node:fs';
import { nanoid } from 'nanoid';
import { foldNumber } from '$core/access';
import { seatName } from '$core/seating';
import type { Paper, Question } from '$core/paper';
import { DEFAULT_RULES, type SessionRules } from '$core/session';
import { newSitting, type Actor } from '$core/sitting';
import { MINUTE } from '$core/time';
import { giveGrant, type NewGrant } from '../grants';
import { arrive, knock } from '../identity';
import { startOtium, type Otium } from '../otium';
import { blankInput, findSession, makeDoorCode, saveSession, type SessionInput } from '../session';
import { act, begin, OwnIds, startClock } from '../sitting';
import { Threads } from '../thread';
import { copyOfFolder, goesAtExit, newDataFolder } from './data-folder';

/** A small house for tests: one site, one room, one session at nine, on a real file and a clock that tests move. */
export type House = {
	otium: Otium;
	dir: string;
	clock: { at: number };
	sessionId: string;
	people: { sittingId: string; candidateId: string; number: string; family: string }[];
	/** Opens the same file again, as after a crash or a restart. */
	restart: () => Promise<Otium>;
	close: () => Promise<void>;
};

export const NINE = Date.parse('2026-12-08T09:00:00Z');
export const COORDINATOR: Actor = { role: 'coordinator', id: 'ode' };
export const PROCTOR: Actor = { role: 'proctor', id: 'dunmore' };
/** The first of the house's people. */
export const CANDIDATE: Actor = { role: 'candidate', id: 'can0' };

const QUESTIONS: Question[] = Array.from({ length: 6 }, (_, i) => ({
	id: `q${i + 1}`,
	kind: 'true_false',
	stem: `Is ${i} even?`,
	answer: i % 2 === 0,
	points: 1,
	topic: 'numbers'
}));
export const PAPER: Paper = { title: 'Numbers', parts: [{ title: 'All', questions: QUESTIONS, draw: null }] };

/** One set for all houses of a test file: each would take half a second to start its own. */
const THREADS = new Threads();

type Change = {
	candidates?: number;
	rules?: Partial<SessionRules>;
	timing?: Partial<SessionRules['timing']>;
	closes?: number | null;
	paper?: Paper;
	/** A key that no other house has. */
	ownKey?: boolean;
};

type People = House['people'];
/** Houses that were asked for before, furnished and closed, to be copied: to furnish one takes longer than most tests. */
const furnished = new Map<string, { dir: string; people: People } | 'once'>();

export async function buildHouse(change: Change = {}): Promise<House> {
	const like = JSON.stringify(change);
	const known = change.ownKey ? undefined : furnished.get(like);
	if (known === undefined) {
		furnished.set(like, 'once');
		const house = await openHouse(await newDataFolder(change), []);
		await furnish(house.otium, house.people, change);
		return house;
	}
	if (known === 'once') {
		const model = await openHouse(await newDataFolder(change), []);
		await furnish(model.otium, model.people, change);
		await model.otium.stop();
		goesAtExit(model.dir);
		furnished.set(like, model);
		return openHouse(copyOfFolder(model.dir), model.people);
	}
	return openHouse(copyOfFolder(known.dir), known.people);
}

async function openHouse(dir: string, people: People): Promise<House> {
	const clock = { at: NINE };
	const start = () =>
		startOtium({ dataDir: dir, now: () => clock.at, sweep: false, logLevel: 'silent', threads: THREADS });
	const house: House = {
		otium: await start(),
		dir,
		clock,
		sessionId: 's1',
		people: structuredClone(people),
		async restart() {
			await house.otium.stop();
			house.otium = await start();
			return house.otium;
		},
		async close() {
			await house.otium.stop();
			rmSync(dir, { recursive: true });
		}
	};
	return house;
}

async function furnish({ db, now }: Otium, people: People, change: Change) {
	await db('administration').insert({ id: 'winter', name: 'Winter' });
	await db('site').insert({ id: 'quayside', name: 'Quayside', zone: 'Europe/London' });
	await db('room').insert({ id: 'chart', site_id: 'quayside', name: 'Chart Room', seat_rows: 20, seats_per_row: 10 });
	await db('candidate_group').insert({ id: 'watch', site_id: 'quayside', name: 'Watch A' });
	await db('paper').insert({
		id: 'numbers',
		title: 'Numbers',
		version: 1,
		content: JSON.stringify(change.paper ?? PAPER)
	});
	await db('paper_allowed').insert({ administration_id: 'winter', paper_id: 'numbers' });
	for (const [id, name] of [
		['ode', 'Maren Ode'],
		['dunmore', 'Rhys Dunmore']
	]) {
		await db('staff').insert({ id, name, sign_in: id, password_hash: '-' });
	}
	const rules: SessionRules = {
		...DEFAULT_RULES,
		...change.rules,
		timing: { ...DEFAULT_RULES.timing, ...change.timing }
	};
	await db('session').insert({
		id: 's1',
		administration_id: 'winter',
		room_id: 'chart',
		paper_id: 'numbers',
		name: 'Numbers · Watch A',
		kind: 'live',
		opens: NINE,
		closes: change.closes === undefined ? NINE + 75 * MINUTE : change.closes,
		rules: JSON.stringify(rules)
	});
	await db('session_proctor').insert({ session_id: 's1', staff_id: 'dunmore' });
	await db('session_group').insert({ session_id: 's1', group_id: 'watch' });
	for (let i = 0; i < (change.candidates ?? 3); i++) {
		const person = { sittingId: `sit${i}`, candidateId: `can${i}`, number: `DO-${1001 + i}`, family: `Family${i}` };
		people.push(person);
		await db('candidate').insert({
			id: person.candidateId,
			number: person.number,
			number_folded: foldNumber(person.number),
			given: `Given${i}`,
			family: person.family,
			group_id: 'watch'
		});
		await db('sitting').insert({
			id: person.sittingId,
			candidate_id: person.candidateId,
			administration_id: 'winter',
			paper_id: 'numbers',
			session_id: 's1',
			state: 'expected',
			fold: JSON.stringify(newSitting(person.sittingId, 's1', now()))
		});
		await db('roster').insert({ session_id: 's1', sitting_id: person.sittingId, seat: seatName(i, 10) });
	}
}

/** Opens the door and returns its code. */
export async function openDoor({ otium, sessionId }: House): Promise<string> {
	const session = (await findSession(otium.db, sessionId))!;
	await otium.db.transaction((trx) => makeDoorCode(trx, session, { role: 'system', id: 'test' }, otium.now()));
	return (await findSession(otium.db, sessionId))!.doorCode!;
}

export async function arriveAt(house: House, i: number, code: string, deviceId = `device${i}`) {
	const { number, family } = house.people[i];
	const met = await knock(house.otium, { code, number, family, address: '127.0.0.1' });
	if (!met.ok) throw new Error(met.refusal.code);
	return arrive(house.otium, {
		note: met.person.note,
		commandId: nanoid(),
		deviceId,
		deviceName: 'Laptop',
		address: '127.0.0.1',
		publicKey: 'some key'
	});
}

/** Brings a candidate from the door to work. Returns the device's number. */
export async function bringToWork(house: House, i: number, code: string): Promise<number> {
	const arrived = await arriveAt(house, i, code);
	if (!arrived.ok) throw new Error(arrived.refusal.code);
	const { sittingId } = house.people[i];
	await act(house.otium, [{ id: nanoid(), sittingId, by: PROCTOR, body: { kind: 'let_in' } }]);
	const begun = await begin(house.otium, sittingId, nanoid(), '');
	if (!begun.ok) throw new Error(begun.refusal.code);
	await startClock(house.otium, sittingId);
	return arrived.device.epoch;
}

/** What the device of a sitting calls a question of its paper. */
export const nameOnDevice = ({ otium }: House, sittingId: string, questionId: string) =>
	new OwnIds(otium.db, sittingId, []).nameOf(questionId);

/** As if an administration had been closed, without all that comes before it; nothing of it can be changed from then on. */
export const closeAtOnce = ({ otium }: House, administrationId = 'winter') =>
	otium.db('closing').insert({
		administration_id: administrationId,
		at: otium.now(),
		by: 'ode',
		second: null,
		archive: 'x',
		sha256: 'x',
		bytes: 1,
		counts: '{}',
		head: 'x'
	});

/** A make-up of the house's paper, at 14:00 unless told otherwise. */
export function makeUpInput(change: Partial<SessionInput> = {}): SessionInput {
	return {
		...blankInput('Europe/London', NINE),
		kind: 'make_up',
		paperId: 'numbers',
		groupIds: ['watch'],
		roomId: 'chart',
		date: '2026-12-08',
		time: '14:00',
		until: '15:15',
		proctorIds: ['dunmore'],
		...change
	};
}

/** Plans that make-up. Returns its id. */
export async function planMakeUp(house: House, change: Partial<SessionInput> = {}): Promise<string> {
	const saved = await saveSession(house.otium, COORDINATOR, 'winter', makeUpInput(change));
	if (!saved.ok) throw new Error(saved.message);
	return saved.ids[0];
}

/** Gives somebody a grant for the session, in the proctor's name unless `change` says otherwise. */
export function giveHere(house: House, body: NewGrant['body'], change: Partial<NewGrant> = {}) {
	return giveGrant(house.otium, PROCTOR, nanoid(), {
		candidateId: 'can0',
		scope: { kind: 'session', id: house.sessionId },
		body,
		reason: 'alarm',
		givenBy: PROCTOR.id,
		givenAt: house.otium.now(),
		...change
	});
}
