import { nanoid } from 'nanoid';
import { nextAttempt } from '$core/attempts';
import { newSitting, RefusalError, type Refusal } from '$core/sitting';
import { timeAndDate } from '$core/time';
import { transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Acting } from '../house';
import { actIn, loadSitting, refreshDerivedColumns, tell, type Loaded, type Touched } from '../sitting';

/** On which device it is sat; `unsigned`: its browser can't sign. */
export type NextDevice = { commandId: string; deviceId: string; deviceName: string; unsigned?: true };
export type Again = { ok: true; sittingId: string } | { ok: false; refusal: Refusal };

/** What the candidate of an ended sitting may know of a further attempt; null: the rules give none. */
export type AttemptOffer = { attempt: number; most: number; from: number | null };

export function offerAgain(one: Loaded, now: number): AttemptOffer | null {
	const { sitting, session } = one;
	const most = session.rules.attempts.most + one.merge.extraAttempts;
	const isDone = sitting.state === 'handed_in' || sitting.state === 'time_up';
	const { windowEnd } = one.reckoning;
	// It is the window that must still be open: the time of this attempt may well have run out.
	const isOver = session.endedAt !== null || (windowEnd !== null && now >= windowEnd);
	if (!isDone || isOver || sitting.ended === null) return null;
	const next = nextAttempt(
		{ ...session.rules.attempts, most },
		{ attempt: one.attempt, endedAt: sitting.ended.at },
		now
	);
	if (!next.ok && next.why === 'none_left') return null;
	// The door must still be open then: what it would refuse is not offered.
	const { lastEntry } = one.reckoning;
	if (lastEntry !== null && (next.ok ? now : next.from) > lastEntry) return null;
	return { attempt: next.attempt, most, from: next.ok ? null : next.from };
}

/**
 * A further attempt in the same session, on the same device: a sitting of its own, with a form of its own, that takes the
 * place on the roster. The one before stays as it was handed in. Pressed twice, it is one attempt.
 */
export async function sitAgain(otium: Acting, sittingId: string, asked: NextDevice): Promise<Again> {
	const now = otium.now();
	const touched: Touched = new Map();
	const result = await transact(otium.db, (trx) => again(trx, now, sittingId, asked, touched)).catch((error) => {
		if (error instanceof RefusalError) return { ok: false, refusal: error.refusal } as const;
		throw error;
	});
	if (result.ok) {
		tell(otium, touched);
		const { session_id } = await otium.db('sitting').where({ id: result.sittingId }).first('session_id');
		otium.hub.changed(session_id, [sittingId, result.sittingId]);
	}
	return result;
}

async function again(
	trx: Query,
	now: number,
	sittingId: string,
	{ commandId, ...device }: NextDevice,
	touched: Touched
): Promise<Again> {
	const one = await loadSitting(trx, sittingId, now);
	const row = await trx('sitting').where({ id: sittingId }).first();
	if (row?.next_attempt_id) return { ok: true, sittingId: row.next_attempt_id };
	const offer = one && offerAgain(one, now);
	if (!one || !offer)
		throw new RefusalError({
			code: 'gone',
			message: 'There is no further attempt.',
			instead: 'Ask your proctor if you think there should be.'
		});
	if (offer.from !== null)
		throw new RefusalError({
			code: 'gone',
			message: `The next attempt can begin from ${timeAndDate(offer.from, one.session.site.zone, now)}.`,
			instead: 'This page shows when it is time.'
		});
	const { session } = one;
	const id = nanoid();
	await trx('sitting').insert({
		id,
		candidate_id: row.candidate_id,
		administration_id: row.administration_id,
		paper_id: row.paper_id,
		session_id: session.id,
		counts: row.counts,
		attempt: offer.attempt,
		fold: JSON.stringify(newSitting(id, session.id, now)),
		state: 'expected'
	});
	await takePlaceOf(trx, session.id, sittingId, id);
	await refreshDerivedColumns(trx, [id], now);
	const by = { role: 'candidate' as const, id: row.candidate_id };
	await appendToLogbook(trx, [
		{ at: now, by, kind: 'another_attempt', sessionId: session.id, sittingId: id, body: { attempt: offer.attempt } }
	]);
	const [outcome] = await actIn(
		trx,
		now,
		[
			{
				id: `${device.deviceId} ${commandId}`,
				sittingId: id,
				by,
				// The same device: what could not sign before can't now.
				body: {
					kind: 'arrive',
					sessionId: session.id,
					...(one.sitting.device?.unsigned && { unsigned: true as const }),
					...device
				}
			}
		],
		touched
	);
	if (!outcome.ok) throw new RefusalError(outcome.refusal);
	return { ok: true, sittingId: id };
}

/** The next attempt takes the place of the one before on the roster, with its seat and its slip. */
export async function takePlaceOf(trx: Query, sessionId: string, before: string, next: string): Promise<void> {
	await trx('sitting').where({ id: before }).update({ next_attempt_id: next });
	await trx('roster').where({ session_id: sessionId, sitting_id: before }).update({ sitting_id: next });
	await trx('slip').where({ sitting_id: before }).update({ sitting_id: next });
}
