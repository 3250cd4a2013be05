import { may, showSlip, type StaffMember } from '$core/access';
import { fail } from '$core/problem';
import { hasEnded, type Actor } from '$core/sitting';
import { sameLocalDay, timeAndDate, type LocalWindow } from '$core/time';
import { transact } from '../db';
import type { Acting } from '../house';
import { findSession, placeOf, slipsFor, tendOwnWindows } from '../session';
import { actIn, loadSitting, tell, wasDone, type Loaded, type Touched } from '../sitting';
import { placeFrom, readWindow } from './ask';
import { giveGrantsIn, tellOf } from './give';
import type { NewGrant } from '../records';

/** What opening one sitting again is asked with. */
export type ReopenAsked = {
	id: string;
	sittingId: string;
	reason: string;
	/** Minutes on top of what was left. */
	minutes: number;
	/** null: in the session, which still goes on. */
	window: (LocalWindow & { roomId: string | null; proctorId: string | null }) | null;
	/** A later day than the one on which it ended needs a grant that says so: give that as well. */
	anotherDay: boolean;
};

/** How they come back in. */
export type Reopened = {
	/** At work again at once, or from when they may come. */
	words: string;
	/** The session's code of today; null: they come on another day, which has a code of its own. */
	code: string | null;
	/** Their own code, where the session is entered with slips. */
	slip: string | null;
};

/**
 * Opens a sitting that has ended for its candidate alone: answers and time left stay as they were. It goes on now, or in a
 * window of its own. Nobody else's window opens.
 * @throws ProblemError when it can't
 */
export async function reopenFor(otium: Acting, staff: StaffMember, by: Actor, asked: ReopenAsked): Promise<Reopened> {
	const now = otium.now();
	const one = await loadSitting(otium.db, asked.sittingId, now);
	if (!one) fail('not_found');
	const { session, sitting, candidate, merge } = one;
	if (!may(staff, 'reopen', placeOf(session)))
		fail('not_yours', {
			message: 'Opening sittings again is not yours to do.',
			instead: 'A coordinator of the site can.'
		});
	const { zone } = session.site;
	const window = asked.window && { ...asked.window, ...readWindow(asked.window, zone, now) };
	// In a window of their own they come through the door, on whatever device, and the clock stands until they are back.
	const kind = window === null ? ('reopen' as const) : ('continue_later' as const);
	const command = { id: `${asked.id}:${kind}`, sittingId: sitting.id, by, body: { kind, reason: asked.reason } };
	// Asked again because the answer was lost: it was done, and is told once more.
	if (await wasDone(otium.db, command)) return wordsOfReopening(otium, one, window);
	if (!hasEnded(sitting.state) || sitting.ended === null)
		fail('not_taken', { message: 'This sitting has not ended: there is nothing to open again.' });
	if (window === null && session.endedAt !== null)
		fail('not_taken', { message: 'This session has ended.', instead: 'Give a window of their own.' });
	const goesOn = window?.opens ?? now;
	const needsGrant = !sameLocalDay(sitting.ended.at, goesOn, zone) && !merge.mayReopen;
	if (needsGrant && !asked.anotherDay)
		fail('another_day', {
			message: `It ended on ${timeAndDate(sitting.ended.at, zone, goesOn)}: another day needs a grant that says so.`,
			instead: 'Tick that it may go on on another day.'
		});
	const grant = (body: NewGrant['body']): NewGrant => ({
		candidateId: candidate.id,
		scope: { kind: 'session', id: session.id },
		body,
		reason: asked.reason,
		givenBy: staff.id,
		givenAt: now,
		batch: asked.id
	});
	const grants = [
		...(needsGrant ? [{ id: `${asked.id}:day`, grant: grant({ kind: 'reopen' }) }] : []),
		...(asked.minutes > 0
			? [{ id: `${asked.id}:time`, grant: grant({ kind: 'credit', minutes: asked.minutes }) }]
			: []),
		...(window
			? [
					{
						id: `${asked.id}:window`,
						grant: grant({
							kind: 'own_window',
							opens: window.opens,
							closes: window.closes,
							...(await placeFrom(otium.db, window, session.site.id))
						})
					}
				]
			: [])
	];
	const told: Loaded[] = [];
	const touched: Touched = new Map();
	await transact(otium.db, async (trx) => {
		await giveGrantsIn(trx, by, grants, now, told);
		const [outcome] = await actIn(trx, now, [command], touched);
		if (outcome.ok) return;
		// Nothing is left behind of what could not be done.
		const { message, instead, code } = outcome.refusal;
		fail('not_taken', { message, instead: code === 'no_time_left' ? 'Give minutes as well.' : instead });
	});
	tellOf(otium, told);
	tell(otium, touched);
	await tendOwnWindows(otium, session.id, by);
	return wordsOfReopening(otium, one, window);
}

/** How they come back in, and by what. */
async function wordsOfReopening(
	otium: Acting,
	{ session, sitting }: Loaded,
	window: { opens: number; closes: number } | null
): Promise<Reopened> {
	const now = otium.now();
	const { zone } = session.site;
	const fresh = (await findSession(otium.db, session.id))!;
	const slip = session.rules.door.slips ? ((await slipsFor(otium.db, [sitting.id])).get(sitting.id) ?? null) : null;
	return {
		words: window
			? `Open for them from ${timeAndDate(window.opens, zone, now)} to ${timeAndDate(window.closes, zone, window.opens)}.`
			: 'At work again, with the time that was left.',
		code: sameLocalDay(window?.opens ?? now, now, zone) ? fresh.doorCode : null,
		slip: slip && showSlip(slip)
	};
}
