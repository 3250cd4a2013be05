import { nanoid } from 'nanoid';
import { commandsForFate, fateAtEnd, type EndingFate, type EndingLine } from '$core/closing';
import { fullName } from '$core/names';
import { isAtWork, type Actor } from '$core/sitting';
import { transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import { mailAnchor } from '../proof';
import type { Acting } from '../house';
import {
	actIn,
	loadSittingsOf,
	refreshDerivedColumns,
	tell,
	type Loaded,
	type Request,
	type Touched
} from '../sitting';
import { killDoorCode, makeDoorCode, newReceipt } from './door-code';
import { findSession, type Session } from '../records';

export type RunResult = { ok: true } | { ok: false; message: string };

/** Changes the session itself, in one transaction, and tells everyone in it after the commit. */
async function change(
	otium: Acting,
	sessionId: string,
	work: (trx: Query, session: Session, now: number) => Promise<RunResult>
): Promise<RunResult> {
	const now = otium.now();
	const result = await transact(otium.db, async (trx): Promise<RunResult> => {
		const session = await findSession(trx, sessionId);
		if (!session) return { ok: false, message: 'This session no longer exists.' };
		// While somebody's own window outlives it, an ended session keeps its code, and that may still be shown or renewed.
		if (session.endedAt !== null && session.doorCode === null) return { ok: false, message: 'This session has ended.' };
		return work(trx, session, now);
	});
	if (result.ok) await otium.hub.sessionChanged(sessionId);
	return result;
}

/** Everyone's clock starts, where the rules say that it starts with the room, and whoever is at the door is let in with it. */
export async function startRoom(otium: Acting, sessionId: string, by: Actor): Promise<RunResult> {
	const touched: Touched = new Map();
	const result = await change(otium, sessionId, async (trx, session, now) => {
		if (session.rules.timing.clockStarts !== 'room')
			return { ok: false, message: 'In this session each clock starts when its candidate begins.' };
		if (session.roomStartedAt !== null) return { ok: false, message: 'The room has already been started.' };
		await trx('session').where({ id: sessionId }).update({ room_started_at: now });
		await appendToLogbook(trx, [{ at: now, by, kind: 'room_started', sessionId, body: {} }]);
		const waiting: string[] = await trx('sitting')
			.where({ session_id: sessionId, state: 'at_door' })
			.whereNotNull('device_epoch')
			.pluck('id');
		const requests = waiting.map((id): Request => ({ id: nanoid(), sittingId: id, by, body: { kind: 'let_in' } }));
		await actIn(trx, now, requests, touched);
		await refreshDerivedColumns(trx, await rosterIds(trx, sessionId), now);
		return { ok: true };
	});
	tell(otium, touched);
	return result;
}

/**
 * The proctor ends the paper, where the rules leave that to them: from now on everyone without more time is out of it, and
 * whoever has more goes on for as much longer.
 */
export function callTime(otium: Acting, sessionId: string, by: Actor): Promise<RunResult> {
	return change(otium, sessionId, async (trx, session, now) => {
		if (session.rules.timing.endedBy !== 'proctor')
			return { ok: false, message: 'In this session each one’s own clock ends the work.' };
		if (session.timeCalledAt !== null) return { ok: false, message: 'The time has already been called.' };
		if (session.roomStartedAt === null) return { ok: false, message: 'The room has not been started yet.' };
		await trx('session').where({ id: sessionId }).update({ time_called_at: now });
		await appendToLogbook(trx, [{ at: now, by, kind: 'time_called', sessionId, body: {} }]);
		await refreshDerivedColumns(trx, await rosterIds(trx, sessionId), now);
		return { ok: true };
	});
}

/** Work may begin before the opening, for all who share the session's window. */
export function openEarly(otium: Acting, sessionId: string, by: Actor): Promise<RunResult> {
	return change(otium, sessionId, async (trx, session, now) => {
		if (session.rules.timing.clockStarts === 'room')
			return { ok: false, message: 'In this session everyone begins when the room is started.' };
		if (session.openedEarlyAt !== null || now >= session.window.opens)
			return { ok: false, message: 'Work can begin already.' };
		await trx('session').where({ id: sessionId }).update({ opened_early_at: now });
		await appendToLogbook(trx, [{ at: now, by, kind: 'opened_early', sessionId, body: {} }]);
		return { ok: true };
	});
}

export function renewDoorCode(otium: Acting, sessionId: string, by: Actor): Promise<RunResult> {
	return change(otium, sessionId, async (trx, session, now) => {
		await makeDoorCode(trx, session, by, now);
		return { ok: true };
	});
}

/** Shows the code to whoever stands before the board, or hides it again. Before the door opens this makes it. */
export function showDoorCodeTo(otium: Acting, sessionId: string, by: Actor, hidden: boolean): Promise<RunResult> {
	return change(otium, sessionId, async (trx, session, now) => {
		if (!hidden && session.doorCode === null) await makeDoorCode(trx, session, by, now);
		await trx('session').where({ id: sessionId }).update({ code_hidden: hidden });
		await appendToLogbook(trx, [
			{ at: now, by, kind: hidden ? 'door_code_hidden' : 'door_code_shown', sessionId, body: {} }
		]);
		return { ok: true };
	});
}

/** Who stands where, and what would become of each if the session ended now. */
export async function foreseeEnding(db: Query, sessionId: string, now: number): Promise<EndingLine[]> {
	return (await here(db, sessionId, now)).map((one) => ({
		sittingId: one.sitting.id,
		name: fullName(one.candidate),
		number: one.candidate.number,
		fate: fateOf(one, now),
		answered: one.answered,
		isAtWork: isAtWork(one.sitting)
	}));
}

function fateOf(one: Loaded, now: number): EndingFate {
	const planned = fateAtEnd(one.sitting, one.reckoning.phase === 'over');
	// Whoever waits at the door for a further attempt was here before: they are owed this attempt, not a make-up.
	const fate = planned === 'absent' && one.attempt > 1 && one.sitting.state === 'at_door' ? 'carried_over' : planned;
	return isWindowToCome(one, now) && fate !== 'stays' ? 'own_window' : fate;
}

/** They have a window of their own that is open, or still to come. */
function isWindowToCome({ reckoning }: Loaded, now: number): boolean {
	return reckoning.ownWindow && (reckoning.windowEnd === null || now < reckoning.windowEnd);
}

/**
 * Ends the session: the unfinished are carried over with their time, whoever never came is absent, the code is dead.
 * Whoever has a window of their own that is still open, or still to come, stays, and the code lives on for them alone.
 * @param collects what those at work have so far is handed in, instead of being carried over
 */
export async function endSession(otium: Acting, sessionId: string, by: Actor, collects = false): Promise<RunResult> {
	const touched: Touched = new Map();
	const result = await change(otium, sessionId, async (trx, session, now) => {
		if (session.endedAt !== null) return { ok: false, message: 'This session has ended.' };
		if (collects) await collect(trx, await here(trx, sessionId, now), by, now, touched);
		const goOn = await meetFates(trx, await here(trx, sessionId, now), by.id, now, touched);
		await trx('session').where({ id: sessionId }).update({ ended_at: now, ended_by: by.id });
		if (!goOn) await killDoorCode(trx, session, by, now);
		const sittings: string[] = await trx('sitting').where({ session_id: sessionId }).pluck('id');
		const body = { sittings: sittings.length, ...(collects ? { collected: true } : {}) };
		await appendToLogbook(trx, [{ at: now, by, kind: 'session_ended', sessionId, body }]);
		await mailAnchor(trx, session, now);
		return { ok: true };
	});
	tell(otium, touched);
	return result;
}

/** Hands in what those at work have so far, as a teacher collects papers; whoever has a window of their own goes on. */
async function collect(trx: Query, sittings: Loaded[], by: Actor, now: number, touched: Touched): Promise<void> {
	const requests = sittings
		.filter((one) => isAtWork(one.sitting) && fateOf(one, now) === 'carried_over')
		.map((one): Request => ({
			id: nanoid(),
			sittingId: one.sitting.id,
			by,
			body: { kind: 'hand_in', receipt: newReceipt(), reason: 'collected at the end' }
		}));
	await actIn(trx, now, requests, touched);
}

/** What the end has in store for each; returns whether somebody goes on in a window of their own. */
async function meetFates(
	trx: Query,
	sittings: Loaded[],
	actorId: string,
	now: number,
	touched: Touched
): Promise<boolean> {
	const by: Actor = { role: 'system', id: actorId };
	let goOn = false;
	const requests = sittings.flatMap((one) => {
		const fate = fateOf(one, now);
		if (fate === 'own_window') {
			goOn = true;
			return [];
		}
		const words = { receipt: newReceipt(), reason: 'the session ended' };
		return commandsForFate(one.sitting, fate, words).map((body): Request => ({
			id: nanoid(),
			sittingId: one.sitting.id,
			by,
			body
		}));
	});
	await actIn(trx, now, requests, touched);
	return goOn;
}

/**
 * Own windows that outlive their session: a code while one is open or to come, and the session's end for whoever's is
 * over. Works from what is, so it may be called at any time.
 */
export async function tendOwnWindows(otium: Acting, sessionId: string, by: Actor): Promise<void> {
	const touched: Touched = new Map();
	const now = otium.now();
	const changed = await transact(otium.db, async (trx) => {
		const session = await findSession(trx, sessionId);
		if (!session || session.endedAt === null) return false;
		const sittings = await here(trx, sessionId, now);
		// Whoever was absent, or was carried over, comes back in theirs.
		const comes = sittings.some(
			(one) => ['absent', 'carried_over'].includes(one.sitting.state) && isWindowToCome(one, now)
		);
		const goOn = (await meetFates(trx, sittings, by.id, now, touched)) || comes;
		// A code is dead at midnight; a window on a later day has that day's.
		const isDead = session.doorCode === null || (session.codeDiesAt ?? Infinity) <= now;
		if (goOn && isDead) await makeDoorCode(trx, session, by, now);
		else if (!goOn && session.doorCode !== null) await killDoorCode(trx, session, by, now);
		else return false;
		return true;
	});
	tell(otium, touched);
	if (changed) await otium.hub.sessionChanged(sessionId);
}

/** The sittings that belong to the session now. */
function here(db: Query, sessionId: string, now: number): Promise<Loaded[]> {
	return loadSittingsOf(db, [sessionId], now);
}

export async function rosterIds(db: Query, sessionId: string): Promise<string[]> {
	const rows: { sitting_id: string }[] = await db('roster').where({ session_id: sessionId }).select('sitting_id');
	return rows.map((row) => row.sitting_id);
}
