import { moveFate, moveObjection, type MoveLine } from '$core/closing';
import { fullName } from '$core/names';
import { isAtWork, type Actor } from '$core/sitting';
import { MINUTE, timeAndDate, type Window } from '$core/time';
import { transact, type Query } from '../db';
import type { Acting } from '../house';
import { appendToLogbook } from '../logbook';
import { findSession, type Session } from '../records';
import { loadSittingsOf, reckonFor, refreshDerivedColumns } from '../sitting';

/** While nobody has begun, what was done for the window before holds for it alone: the new one has a start and an end of its own. */
const ANEW = { room_started_at: null, opened_early_at: null, entry_closed_at: null, time_called_at: null };

/** Who gains, who is finished and stays, who is in progress, if everyone's window were this one. */
export async function foreseeMove(
	db: Query,
	session: Session,
	next: Window,
	now: number
): Promise<{ objection: string | null; lines: MoveLine[]; anyBegun: boolean }> {
	const here = await loadSittingsOf(db, [session.id], now);
	const anyBegun = here.some((one) => one.sitting.beganAt !== null);
	const lines = here.map((one): MoveLine => {
		const after = reckonFor(one.sitting, { ...session, window: next }, one.merge, now);
		const fate = moveFate(one.sitting, one.reckoning, after);
		const [was, is] = [one.reckoning.deadline, after.deadline];
		const moved = isAtWork(one.sitting) && was !== null && is !== null ? Math.round((is - was) / MINUTE) : 0;
		return { sittingId: one.sitting.id, name: fullName(one.candidate), fate, minutes: moved };
	});
	return {
		objection: moveObjection(session.window, next, { anyBegun, now, zone: session.site.zone }),
		lines,
		anyBegun
	};
}

/**
 * Moves everyone's window, also once the door is open. Own windows, what has ended and every answer stay as they are.
 * @param revision as the asker saw it
 */
export async function moveWindow(
	otium: Acting,
	by: Actor,
	sessionId: string,
	next: Window,
	{ reason, revision }: { reason: string; revision: number }
): Promise<{ ok: true } | { ok: false; message: string }> {
	const now = otium.now();
	const moved = await transact(otium.db, async (trx) => {
		const session = await findSession(trx, sessionId);
		if (!session || session.endedAt !== null) return { ok: false, message: 'This session has ended.' } as const;
		if (session.revision !== revision)
			return { ok: false, message: 'Somebody has just changed this session. Look again.' } as const;
		const { objection, lines, anyBegun } = await foreseeMove(trx, session, next, now);
		if (objection) return { ok: false, message: objection } as const;
		await trx('session')
			.where({ id: sessionId })
			.update({ opens: next.opens, closes: next.closes, revision: revision + 1, ...(!anyBegun && ANEW) });
		await refreshDerivedColumns(
			trx,
			lines.map((line) => line.sittingId),
			now
		);
		const { zone } = session.site;
		const inWords = ({ opens, closes }: Window) =>
			`${timeAndDate(opens, zone, now)} to ${closes === null ? 'no end' : timeAndDate(closes, zone, opens)}`;
		const body = { was: inWords(session.window), is: inWords(next), reason };
		await appendToLogbook(trx, [{ at: now, by, kind: 'window_moved', sessionId, body }]);
		return { ok: true } as const;
	});
	if (moved.ok) await otium.hub.sessionChanged(sessionId);
	return moved;
}
