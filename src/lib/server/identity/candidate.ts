import { LRUCache } from 'lru-cache';
import { nanoid } from 'nanoid';
import {
	ENTRY_REFUSALS,
	foldNumber,
	isInside,
	isTablet,
	isTurningCode,
	readDoorCode,
	readRanges,
	sameName,
	sameSecret,
	SLIP_LENGTH,
	type EntryRefusal,
	clientFor,
	type ProvenClient
} from '$core/access';
import { refusal, type Refusal } from '$core/sitting';
import { timeAndDate } from '$core/time';
import { readPhoto } from '../pictures';
import { noteRefusal, settleRefusals, type Refused } from '../door';
import type { House } from '../house';
import { perHouse, type Query } from '../db';
import { findSession, findSessions, offerAgain, type Session } from '../session';
import { act, loadSitting } from '../sitting';
import { hashToken, newToken, readNote, signNote } from './tokens';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now' | 'hub' | 'limits' | 'presence' | 'dataDir'>;

/** What a candidate types at the door. */
export type Knock = {
	/** The door's code, or a slip's. */
	code: string;
	number: string;
	family: string;
	/** Where the rules ask for names: the given name, and the day and month of birth as `31-05`. */
	given?: string;
	birthday?: string;
	address: string;
	client?: ProvenClient | null;
	deviceName?: string;
};

/** "Is this you?": what is shown, and the note that proves that the door recognised them. */
export type Recognised = {
	note: string;
	name: string;
	number: string;
	paper: string;
	room: string;
	seat: string | null;
	opens: number;
	zone: string;
	kind: Session['kind'];
	photo: boolean;
};
export type Answer<T> = ({ ok: true } & T) | { ok: false; refusal: Refusal; waitSeconds?: number };

/** One address at one door: a class behind one address mistypes so often without waiting. */
const FREE_AT_A_DOOR = 20;
const NOTE_LASTS_MS = 10 * 60_000;

/** What the door says when something that was typed is wrong. */
const MISSES = new Set<string>(['code_unknown', 'code_expired', 'identity_unknown'] satisfies EntryRefusal[]);
/** What it says to somebody whom it knows. */
const KNOWN = new Set<string>(['not_on_list', 'wrong_session', 'no_tablets', 'client_unproven', 'client_outdated']);

/** Finds the sitting behind a code and an identity. A miss never says which part of it was wrong. */
export async function knock(otium: Needs, typed: Knock): Promise<Answer<{ person: Recognised }>> {
	const code = readDoorCode(typed.code);
	const target = `door:${code}:${foldNumber(typed.number || `${typed.given}${typed.family}`)}`;
	// Counted before anything is compared, and given back unless it was a miss: tries that come all at once are counted too.
	const { wait, until } = await otium.limits.consume(target, typed.address, otium.now());
	if (wait > 0) return { ok: false, refusal: refusal('too_many_tries'), waitSeconds: wait };
	const answer = await recogniseAtDoor(otium, typed, code, { target, until });
	const said = answer.ok ? null : answer.refusal.code;
	if (said === null || KNOWN.has(said)) await otium.limits.giveBack(target, typed.address);
	else if (!MISSES.has(said)) await otium.limits.refund(target, typed.address);
	return answer;
}

async function recogniseAtDoor(
	otium: Needs,
	typed: Knock,
	code: string,
	limited: { target: string; until: number | null }
): Promise<Answer<{ person: Recognised }>> {
	const now = otium.now();
	const slip = code.length === SLIP_LENGTH ? await sittingBySlip(otium.db, code) : null;
	const session = slip
		? await findSession(otium.db, slip.session_id)
		: code === ''
			? null
			: await sessionByCode(otium, typed.code);
	if (!session || (slip && !session.rules.door.slips)) return refuse('code_unknown');
	if (session.codeDiesAt !== null && now >= session.codeDiesAt) return refuse('code_expired');
	const deviceName = typed.deviceName ?? 'A device';
	const tellProctor = (code: string, who: Partial<Refused> = {}) =>
		noteRefusal(otium, { sessionId: session.id, code, deviceName, ...who });
	if (!(await isOnNetwork(otium.db, session, typed.address))) {
		await tellProctor('off_network');
		return offNetwork();
	}

	const door = `session:${session.id}:${typed.address}`;
	const doorWait = await otium.limits.waitFor(door, typed.address, now);
	if (doorWait > 0) return { ok: false, refusal: refusal('too_many_tries'), waitSeconds: doorWait };

	const { identity } = session.rules.door;
	if (!slip && identity === 'slip') return refuse('slip_needed');
	if (!slip && identity === 'names_and_birthday' && (!typed.given || !typed.birthday)) return refuse('names_needed');
	const found = slip
		? await onRoster(otium.db, session.id, { 'sitting.id': slip.sitting_id })
		: await recognise(otium.db, session, typed);
	if (!found) {
		const stranger = identity === 'number_and_family' && !slip ? await elsewhere(otium.db, session, typed) : null;
		if (stranger) {
			await tellProctor(stranger.code, { candidateId: stranger.candidateId });
			return { ok: false, refusal: stranger.refusal };
		}
		const waits = [limited.until, await otium.limits.missedToo(door, now, FREE_AT_A_DOOR)];
		const waitsUntil = Math.max(...waits.map((until) => until ?? 0)) || null;
		await tellProctor('identity_unknown', { waitsUntil, limited: [limited.target, door] });
		return refuse('identity_unknown');
	}
	await otium.limits.succeeded(door);
	const { level, tablets } = session.rules.lockdown;
	if (level !== 'open' && !tablets && isTablet(deviceName)) {
		await tellProctor('no_tablets', { candidateId: found.candidate_id, sittingId: found.sitting_id });
		return refuse('no_tablets');
	}
	// Told here, at the door, and not when everyone else begins.
	const client = clientFor(session, typed.client ?? null);
	if (client === 'missing' || client === 'outdated') {
		const code = client === 'missing' ? 'client_unproven' : 'client_outdated';
		await tellProctor(code, { candidateId: found.candidate_id, sittingId: found.sitting_id });
		return { ok: false, refusal: refusal(code) };
	}

	const note = await signNote(otium.db, { sittingId: found.sitting_id, sessionId: session.id }, now + NOTE_LASTS_MS);
	return {
		ok: true,
		person: {
			note,
			name: `${found.given} ${found.family}`,
			number: found.number,
			paper: session.paper.title,
			room: session.room.name,
			seat: found.seat,
			opens: session.window.opens,
			zone: session.site.zone,
			kind: session.kind,
			photo: found.photo_at !== null
		}
	};
}

/** The session whose code this is: the fixed one, or the one of these minutes where it turns. */
async function sessionByCode(otium: Needs, typed: string): Promise<Session | null> {
	const code = readDoorCode(typed);
	const [fixed] = await findSessions(otium.db, (query) =>
		query.where('session.door_code', code).whereNull('turning_key')
	);
	if (fixed?.doorCode && sameSecret(fixed.doorCode, code)) return fixed;
	const turning = await findSessions(otium.db, (query) => query.whereNotNull('turning_key').whereNotNull('door_code'));
	return (
		turning.find((one) => isTurningCode(one.turningKey!, typed, otium.now(), one.rules.door.turnsEveryMinutes)) ?? null
	);
}

async function sittingBySlip(db: Query, code: string): Promise<{ sitting_id: string; session_id: string } | undefined> {
	return db('slip')
		.join('sitting', 'sitting.id', 'slip.sitting_id')
		.where({ code })
		.first('slip.sitting_id', 'sitting.session_id');
}

/** Whether the rules let an address in. Rules that name only networks which are gone let nobody in. */
async function isOnNetwork(db: Query, session: Session, address: string): Promise<boolean> {
	const { networks } = session.rules.door;
	if (networks.length === 0) return true;
	const ranges: string[] = await db('network').whereIn('id', networks).pluck('ranges');
	return isInside(
		address,
		ranges.flatMap((text) => readRanges(text).ranges)
	);
}

function refuse(code: EntryRefusal): { ok: false; refusal: Refusal } {
	return { ok: false, refusal: { code, ...ENTRY_REFUSALS[code] } };
}

const offNetwork = () => refuse('off_network');

type RosterRow = {
	sitting_id: string;
	candidate_id: string;
	seat: string | null;
	given: string;
	family: string;
	number: string;
	birth: string | null;
	photo_at: number | null;
};

/** Whom the typed identity means, by the fields that the rules ask for. Two who fit are nobody. */
async function recognise(db: Query, session: Session, typed: Knock): Promise<RosterRow | undefined> {
	if (session.rules.door.identity !== 'names_and_birthday') {
		const found = await onRoster(db, session.id, { 'candidate.number_folded': foldNumber(typed.number) });
		return found && sameName(found.family, typed.family) ? found : undefined;
	}
	const people = await roster(db, session.id, {});
	const fitting = people.filter(
		(one) =>
			one.birth !== null &&
			one.birth.slice(5) === typed.birthday!.split('-').reverse().join('-') &&
			// Whoever writes their names the other way round is the same person.
			((sameName(one.given, typed.given!) && sameName(one.family, typed.family)) ||
				(sameName(one.given, typed.family) && sameName(one.family, typed.given!)))
	);
	return fitting.length === 1 ? fitting[0] : undefined;
}

async function onRoster(db: Query, sessionId: string, who: Record<string, string>): Promise<RosterRow | undefined> {
	const [found] = await roster(db, sessionId, who);
	return found;
}

function roster(db: Query, sessionId: string, who: Record<string, string>): Promise<RosterRow[]> {
	return db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where({ 'roster.session_id': sessionId, 'sitting.session_id': sessionId, ...who })
		.select(
			'roster.sitting_id',
			'sitting.candidate_id',
			'roster.seat',
			'candidate.given',
			'candidate.family',
			'candidate.number',
			'candidate.birth',
			'candidate.photo_at'
		);
}

/**
 * Somebody who is known by number and family name and is not on this list: told where they are expected, or that the
 * proctor has been told. Both details were right, so nothing is given away.
 */
async function elsewhere(
	db: Query,
	session: Session,
	typed: Knock
): Promise<{ code: string; candidateId: string; refusal: Refusal } | null> {
	const person = (await db('candidate')
		.where({ number_folded: foldNumber(typed.number), left_at: null })
		.first('id', 'family')) as { id: string; family: string } | undefined;
	if (!person || !sameName(person.family, typed.family)) return null;
	const [expected] = await findSessions(db, (query) =>
		query
			.whereNull('session.ended_at')
			.whereIn(
				'session.id',
				db('sitting')
					.where({ candidate_id: person.id })
					.whereIn('state', ['expected', 'carried_over'])
					.select('session_id')
			)
			.orderBy('session.opens')
	);
	if (!expected)
		return {
			code: 'not_on_list',
			candidateId: person.id,
			refusal: { code: 'not_on_list', ...ENTRY_REFUSALS.not_on_list }
		};
	const when = timeAndDate(expected.window.opens, expected.site.zone, session.window.opens);
	return {
		code: 'wrong_session',
		candidateId: person.id,
		refusal: {
			code: 'wrong_session',
			message: `You are expected elsewhere: ${expected.paper.title} in the ${expected.room.name.replace(/^the /i, '')}, ${when}.`,
			instead: ENTRY_REFUSALS.wrong_session.instead
		}
	};
}

/** The photo of whomever a note from the door recognised; null: none, or the note is old or not ours. */
export async function photoByNote(otium: Needs, text: string): Promise<{ bytes: Uint8Array; type: string } | null> {
	const note = await readNote(otium.db, text, otium.now());
	if (!note?.sittingId) return null;
	const row = await otium
		.db('sitting')
		.where({ id: note.sittingId as string })
		.first('candidate_id');
	return row ? readPhoto(otium, row.candidate_id) : null;
}

/** A device on which a candidate is signed in. */
export type SignedIn = { token: string; expires: number; sittingId: string; epoch: number };

/** "This is me": arrives at the door and binds this device, or signs the bound device in again. */
export async function arrive(
	otium: Needs,
	asked: { note: string; commandId: string; deviceId: string; deviceName: string; address: string }
): Promise<Answer<{ device: SignedIn }>> {
	const now = otium.now();
	const note = await readNote(otium.db, asked.note, now);
	if (!note)
		return {
			ok: false,
			refusal: { code: 'gone', message: 'That took too long.', instead: 'Enter the code and your number once more.' }
		};
	const sittingId = note.sittingId as string;
	const before = await loadSitting(otium.db, sittingId, now);
	if (!before) return { ok: false, refusal: refusal('gone') };

	if (!(await isOnNetwork(otium.db, before.session, asked.address))) return offNetwork();

	// Whoever has handed in and may sit the paper again is shown what they handed in, and asked there.
	if (offerAgain(before, now)) return { ok: true, device: await signInDevice(otium, sittingId) };
	const bound = before.sitting.device;
	const isBack =
		bound?.id === asked.deviceId && ['at_door', 'let_in', 'working', 'on_hold'].includes(before.sitting.state);
	if (!isBack) {
		const [outcome] = await act(otium, [
			{
				id: asked.commandId,
				sittingId,
				by: { role: 'candidate', id: before.candidate.id },
				body: {
					kind: 'arrive',
					sessionId: note.sessionId as string,
					deviceId: asked.deviceId,
					deviceName: asked.deviceName
				}
			}
		]);
		if (!outcome.ok) {
			const { code } = outcome.refusal;
			if (code === 'second_device') await tellOfOtherDevice(otium, sittingId, asked.deviceName);
			else if (TOLD_TO_PROCTOR.has(code))
				await noteRefusal(otium, {
					sessionId: note.sessionId as string,
					code,
					deviceName: asked.deviceName,
					candidateId: before.candidate.id,
					sittingId
				});
			return { ok: false, refusal: outcome.refusal };
		}
	}
	const device = await signInDevice(otium, sittingId);
	await settleRefusals(otium, note.sessionId as string, { candidate_id: before.candidate.id });
	return { ok: true, device };
}

/** "No" to "Is this you?": somebody else's details were typed, by mistake or not. The proctor hears of it. */
export async function notMe(otium: Needs, text: string, deviceName: string): Promise<void> {
	const note = await readNote(otium.db, text, otium.now());
	if (!note?.sittingId) return;
	const one = await loadSitting(otium.db, note.sittingId as string, otium.now());
	if (!one) return;
	await noteRefusal(otium, {
		sessionId: note.sessionId as string,
		code: 'not_me',
		deviceName,
		candidateId: one.candidate.id,
		sittingId: one.sitting.id
	});
}

/** A token for the device that a sitting has just been bound to. */
export async function signInDevice(otium: Needs, sittingId: string): Promise<SignedIn> {
	const now = otium.now();
	const { sitting } = (await loadSitting(otium.db, sittingId, now))!;
	const { epoch } = sitting;
	const token = newToken();
	const expires = now + 24 * 3_600_000;
	await otium.db('device').insert({ token_hash: hashToken(token), sitting_id: sittingId, epoch, expires_at: expires });
	// Arriving has just told the sitting that its line is up: only what was lost before has to be written.
	if (sitting.line?.up) otium.presence.bound(sittingId);
	else otium.presence.seen(sittingId);
	return { token, expires, sittingId, epoch };
}

/** What a proctor can do something about; too early, for one, settles itself. */
const TOLD_TO_PROCTOR = new Set<string>(['past_last_entry', 'window_over', 'barred', 'already_ended', 'off_network']);

async function tellOfOtherDevice(otium: Needs, sittingId: string, deviceName: string) {
	await act(otium, [
		{ id: nanoid(), sittingId, by: { role: 'system', id: 'door' }, body: { kind: 'refuse_other_device', deviceName } }
	]);
}

type Bound = { sittingId: string; epoch: number; expires: number };
/** Tokens are never changed once made, so what one stands for is read once. */
const tokensOf = perHouse(() => new LRUCache<string, Bound>({ max: 20_000 }));

/** The sitting and device that a token stands for; null when it is nobody's or has expired. */
export async function deviceByToken(
	db: Query,
	token: string,
	now: number
): Promise<{ sittingId: string; epoch: number } | null> {
	const key = hashToken(token);
	const known = tokensOf(db);
	let device = known.get(key);
	if (!device) {
		const row = await db('device').where({ token_hash: key }).first();
		if (!row) return null;
		device = { sittingId: row.sitting_id, epoch: row.epoch, expires: row.expires_at };
		known.set(key, device);
	}
	return device.expires > now ? device : null;
}
