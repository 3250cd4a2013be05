import { nanoid } from 'nanoid';
import { ENTRY_REFUSALS, foldNumber, readDoorCode, sameName, sameSecret, type EntryRefusal } from '$core/access';
import { refusal, type Refusal } from '$core/sitting';
import type { Otium } from '../otium';
import type { Query } from '../db';
import { findSessions, type Session } from '../session';
import { act, loadSitting } from '../sitting';
import { hashToken, newToken, readNote, signNote } from './tokens';

/** What a candidate types at the door. */
export type Knock = { code: string; number: string; family: string; address: string };

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
};
export type Answer<T> = ({ ok: true } & T) | { ok: false; refusal: Refusal; waitSeconds?: number };

const NOTE_LASTS_MS = 10 * 60_000;

/** Finds the sitting behind a code and an identity. A miss never says which part of it was wrong. */
export async function knock(otium: Otium, typed: Knock): Promise<Answer<{ person: Recognised }>> {
	const now = otium.now();
	const code = readDoorCode(typed.code);
	const target = `door:${code}:${foldNumber(typed.number)}`;
	const wait = await otium.limits.waitFor(target, typed.address, now);
	if (wait > 0) return { ok: false, refusal: refusal('too_many_tries'), waitSeconds: wait };

	const session = code === '' ? null : await sessionByCode(otium.db, code);
	if (!session) return miss(otium, target, typed.address, 'code_unknown');
	if (session.codeDiesAt !== null && now >= session.codeDiesAt)
		return miss(otium, target, typed.address, 'code_expired');

	const found = await onRoster(otium.db, session.id, typed.number);
	if (!found || !sameName(found.family, typed.family)) return miss(otium, target, typed.address, 'identity_unknown');
	await otium.limits.succeeded(target);

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
			kind: session.kind
		}
	};
}

async function sessionByCode(db: Query, code: string): Promise<Session | null> {
	const [session] = await findSessions(db, (query) => query.where('session.door_code', code));
	return session?.doorCode && sameSecret(session.doorCode, code) ? session : null;
}

async function miss(
	otium: Otium,
	target: string,
	address: string,
	code: EntryRefusal
): Promise<{ ok: false; refusal: Refusal }> {
	await otium.limits.missed(target, address, otium.now());
	return { ok: false, refusal: { code, ...ENTRY_REFUSALS[code] } };
}

type RosterRow = { sitting_id: string; seat: string | null; given: string; family: string; number: string };

async function onRoster(db: Query, sessionId: string, number: string): Promise<RosterRow | undefined> {
	return db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where({
			'roster.session_id': sessionId,
			'sitting.session_id': sessionId,
			'candidate.number_folded': foldNumber(number)
		})
		.first('roster.sitting_id', 'roster.seat', 'candidate.given', 'candidate.family', 'candidate.number');
}

/** A device on which a candidate is signed in. */
export type SignedIn = { token: string; expires: number; sittingId: string; epoch: number };

/** "This is me": arrives at the door and binds this device, or signs the bound device in again. */
export async function arrive(
	otium: Otium,
	asked: { note: string; commandId: string; deviceId: string; deviceName: string }
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
			if (outcome.refusal.code === 'second_device') await tellOfOtherDevice(otium, sittingId, asked.deviceName);
			return { ok: false, refusal: outcome.refusal };
		}
	}
	const after = (await loadSitting(otium.db, sittingId, now))!.sitting;
	const token = newToken();
	const expires = now + 24 * 3_600_000;
	await otium
		.db('device')
		.insert({ token_hash: hashToken(token), sitting_id: sittingId, epoch: after.epoch, expires_at: expires });
	otium.presence.seen(sittingId);
	return { ok: true, device: { token, expires, sittingId, epoch: after.epoch } };
}

async function tellOfOtherDevice(otium: Otium, sittingId: string, deviceName: string) {
	await act(otium, [
		{ id: nanoid(), sittingId, by: { role: 'system', id: 'door' }, body: { kind: 'refuse_other_device', deviceName } }
	]);
}

/** Tokens are never changed once made, so what one stands for is read once. */
const known = new Map<string, { sittingId: string; epoch: number; expires: number }>();
const MOST_KNOWN = 20_000;

/** The sitting and device that a token stands for; null when it is nobody's or has expired. */
export async function deviceByToken(
	db: Query,
	token: string,
	now: number
): Promise<{ sittingId: string; epoch: number } | null> {
	const key = hashToken(token);
	let device = known.get(key);
	if (!device) {
		const row = await db('device').where({ token_hash: key }).first();
		if (!row) return null;
		device = { sittingId: row.sitting_id, epoch: row.epoch, expires: row.expires_at };
		if (known.size >= MOST_KNOWN) known.clear();
		known.set(key, device);
	}
	return device.expires > now ? device : null;
}
