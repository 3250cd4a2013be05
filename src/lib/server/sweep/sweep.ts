import { nanoid } from 'nanoid';
import { turnsAt } from '$core/access';
import type { Actor } from '$core/sitting';
import { localMidnightAfter } from '$core/time';
import { transact } from '../db';
import { appendToLogbook } from '../logbook';
import { sendWaiting } from '../mail';
import type { Otium } from '../otium';
import { deleteOldSnapshots } from '../pictures';
import {
	doorOpensAt,
	endSession,
	findSessions,
	killDoorCode,
	makeDoorCode,
	newReceipt,
	tendOwnWindows,
	type Session
} from '../session';
import { act, endDueBreaks, refreshDerivedColumns } from '../sitting';

const SWEEP_MS = 1_000;
const ALIVE_MS = 5_000;
const TIDY_MS = 10 * 60_000;
const SYSTEM: Actor = { role: 'system', id: 'sweep' };

/** Starts doing what time brings, once a second. Returns what stops it. */
export function startSweep(otium: Otium): () => void {
	let running = false;
	let notedAlive = 0;
	let tidied = 0;
	const timer = setInterval(async () => {
		if (running) return;
		running = true;
		try {
			await otium.presence.sweep();
			await sweep(otium);
			void postman(otium);
			if (otium.now() - tidied >= TIDY_MS) {
				await deleteOldSnapshots(otium);
				tidied = otium.now();
			}
			if (otium.now() - notedAlive >= ALIVE_MS) {
				await otium.presence.noteAlive();
				notedAlive = otium.now();
			}
		} catch (error) {
			otium.log.error({ err: error }, 'the sweep failed; the next one tries again');
		}
		running = false;
	}, SWEEP_MS);
	return () => clearInterval(timer);
}

/** Mail goes beside the sweep: a mail server that is slow to answer must not hold up time. */
let posting = false;
async function postman(otium: Otium) {
	if (posting) return;
	posting = true;
	try {
		await sendWaiting(otium);
	} catch (error) {
		otium.log.error({ err: error }, 'mail could not be sent; it is tried again');
	}
	posting = false;
}

/**
 * Does everything that is due by the clock: it looks at what is, not at what it did last, so that it is right after any
 * time in which nothing ran.
 */
export async function sweep(otium: Otium): Promise<void> {
	await timeUp(otium);
	await endDueBreaks(otium);
	await otium.pace.sweep();
	await openDoors(otium);
	await turnCodes(otium);
	await closeEntries(otium);
	await ownWindows(otium);
	await endTheDay(otium);
}

async function timeUp(otium: Otium) {
	const now = otium.now();
	const due: { id: string }[] = await otium.db('sitting').where('due_at', '<=', now).select('id');
	if (due.length === 0) return;
	const outcomes = await act(
		otium,
		due.map(({ id }) => ({ id: nanoid(), sittingId: id, by: SYSTEM, body: { kind: 'run_out', receipt: newReceipt() } }))
	);
	// Not over after all, as after a grant that came meanwhile: work out anew when it will be.
	const stale = outcomes.filter((outcome) => !outcome.ok).map((outcome) => outcome.sittingId);
	if (stale.length > 0) await transact(otium.db, (trx) => refreshDerivedColumns(trx, stale, now));
}

async function openDoors(otium: Otium) {
	const now = otium.now();
	// No door opens more than a day before its session.
	const waiting = await findSessions(otium.db, (query) =>
		query
			.whereNull('door_code')
			.whereNull('ended_at')
			.where('opens', '<=', now + 86_400_000)
	);
	for (const session of waiting) {
		if (now < doorOpensAt(session) || now >= dayEndsAt(session)) continue;
		await transact(otium.db, (trx) => makeDoorCode(trx, session, SYSTEM, now));
		await otium.hub.sessionChanged(session.id);
	}
}

/** Which code of a session that turns was last told to those who watch it. */
const toldPeriods = new Map<string, number>();

async function turnCodes(otium: Otium) {
	const now = otium.now();
	const turning = await findSessions(otium.db, (query) => query.whereNotNull('turning_key').whereNotNull('door_code'));
	for (const session of turning) {
		const period = turnsAt(now, session.rules.door.turnsEveryMinutes);
		if (toldPeriods.get(session.id) === period) continue;
		toldPeriods.set(session.id, period);
		await otium.hub.sessionChanged(session.id);
	}
}

/** Last entry has passed: whoever has not come is told to the proctor by name, once. */
async function closeEntries(otium: Otium) {
	const now = otium.now();
	const open = await findSessions(otium.db, (query) =>
		query.whereNull('entry_closed_at').whereNull('ended_at').where('opens', '<=', now)
	);
	for (const session of open) {
		const { lastEntryMinutes } = session.rules.timing;
		const closes = lastEntryMinutes === null ? session.window.closes : session.window.opens + lastEntryMinutes * 60_000;
		if (closes === null || now <= closes) continue;
		await transact(otium.db, async (trx) => {
			const missing = await trx('sitting')
				.join('candidate', 'candidate.id', 'sitting.candidate_id')
				.where({ session_id: session.id, state: 'expected' })
				.select('candidate.number');
			await trx('session').where({ id: session.id }).update({ entry_closed_at: now });
			const body = { notArrived: missing.map((row) => row.number) };
			await appendToLogbook(trx, [{ at: now, by: SYSTEM, kind: 'entry_closed', sessionId: session.id, body }]);
		});
		await otium.hub.sessionChanged(session.id);
	}
}

/**
 * Ended sessions in which somebody's own window may want something done: they have not finished, the session still has
 * its code, or the window was given after the end.
 */
async function ownWindows(otium: Otium) {
	const rows: { id: string }[] = await otium
		.db('grant_given')
		.join('session', 'session.id', 'grant_given.scope_id')
		.join('sitting', (join) =>
			join.on('sitting.session_id', 'session.id').andOn('sitting.candidate_id', 'grant_given.candidate_id')
		)
		.where({ 'grant_given.kind': 'own_window', 'grant_given.scope_kind': 'session' })
		.where('session.ended_at', '>', otium.now() - 7 * 86_400_000)
		.where((any) =>
			any
				.whereIn('sitting.state', ['expected', 'at_door', 'let_in', 'working', 'on_hold'])
				.orWhereNotNull('session.door_code')
				.orWhere('grant_given.given_at', '>=', otium.db.ref('session.ended_at'))
		)
		.distinct('session.id');
	for (const { id } of rows) await tendOwnWindows(otium, id, SYSTEM);
}

/** How long a session that nobody ended waits for those who still work past midnight. */
const AFTER_MIDNIGHT_MS = 3 * 3_600_000;

function dayEndsAt(session: Session): number {
	return session.codeDiesAt ?? localMidnightAfter(session.window.opens, session.site.zone);
}

/** At local midnight the code is dead; a session that somebody forgot ends itself, later if somebody is still at work in it. */
async function endTheDay(otium: Otium) {
	const now = otium.now();
	const started = await findSessions(otium.db, (query) => query.whereNull('ended_at').where('opens', '<=', now));
	for (const session of started) {
		if (now < dayEndsAt(session)) continue;
		if (session.doorCode !== null) {
			await transact(otium.db, (trx) => killDoorCode(trx, session, SYSTEM, now));
			await otium.hub.sessionChanged(session.id);
		}
		const atWork = await otium.db('sitting').where({ session_id: session.id, state: 'working' }).first('id');
		if (!atWork || now >= dayEndsAt(session) + AFTER_MIDNIGHT_MS) await endSession(otium, session.id, SYSTEM);
	}
}
