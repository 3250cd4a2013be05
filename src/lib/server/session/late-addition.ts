import { nanoid } from 'nanoid';
import type { Problem } from '$core/problem';
import { assignSeats, type SeatPlan } from '$core/seating';
import { newSitting, RefusalError, type Actor } from '$core/sitting';
import { transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Acting } from '../house';
import { refreshDerivedColumns, tell, type Touched } from '../sitting';
import { takePlaceOf } from './again';
import { assignTo } from './assign';
import { sittingsLeft } from './entitlement';
import { rosterFor } from './roster';
import type { Session } from '../records';

/**
 * Puts somebody on the list of a session whose door is open, on the first free seat. Whoever was absent from or carried
 * over out of another session of the paper goes on with the sitting they have.
 */
export async function addToSession(
	otium: Acting,
	by: Actor,
	session: Session,
	candidateId: string
): Promise<{ ok: true; sittingId: string } | { ok: false; problem: Problem }> {
	const refuse = (message: string, instead: string) =>
		({ ok: false, problem: { code: 'not_added', message, instead } }) as const;
	if (session.endedAt !== null) return refuse('This session has ended.', 'Put them into another session of the paper.');
	const touched: Touched = new Map();
	const now = otium.now();
	const result = await transact(otium.db, async (trx) => {
		const { people, leftOut } = await rosterFor(trx, {
			administrationId: session.administrationId,
			paperId: session.paper.id,
			kind: session.kind === 'make_up' ? 'live' : session.kind,
			groupIds: [],
			only: null,
			alsoIds: [candidateId],
			attempts: session.rules.attempts,
			opens: now
		});
		const [person] = people;
		if (!person) return refuse(leftOut[0] ?? 'This candidate is not known.', 'Take them off the other session first.');
		if (person.sittingId === null && session.kind !== 'rehearsal') {
			const left = await sittingsLeft(trx, session.administrationId, session.site.id);
			if (left !== null && left <= 0)
				return refuse(
					`No sitting is left at ${session.site.name} for ${person.name}.`,
					'A coordinator of all sites can allot more under Administration; then add them.'
				);
		}
		const sittingId = person.sittingId ?? nanoid();
		if (person.sittingId === null) {
			await trx('sitting').insert({
				id: sittingId,
				candidate_id: candidateId,
				administration_id: session.administrationId,
				paper_id: session.paper.id,
				session_id: session.id,
				counts: session.kind !== 'rehearsal',
				attempt: person.attempt,
				fold: JSON.stringify(newSitting(sittingId, session.id, now)),
				state: 'expected'
			});
		} else {
			await assignTo(trx, session.id, [sittingId], by, now, touched);
		}
		if (person.attempt > 1 && (await takesPlaceOfEarlier(trx, session.id, candidateId, sittingId))) {
			await refreshDerivedColumns(trx, [sittingId], now);
			await appendToLogbook(trx, [
				{ at: now, by, kind: 'another_attempt', sessionId: session.id, sittingId, body: { attempt: person.attempt } }
			]);
			return { ok: true, sittingId } as const;
		}
		const taken: string[] = await trx('roster').where({ session_id: session.id }).whereNotNull('seat').pluck('seat');
		const { plan } = (await trx('room').where({ id: session.room.id }).first('plan')) as { plan: string };
		const seats = JSON.parse(plan) as SeatPlan;
		const free = { ...seats, outOfUse: [...seats.outOfUse, ...taken] };
		const [seat] = assignSeats([{ apart: false }], session.room.rows, session.room.seatsPerRow, free);
		// Absent from this very session: they are on its list already.
		await trx('roster')
			.insert({ session_id: session.id, sitting_id: sittingId, seat })
			.onConflict(['session_id', 'sitting_id'])
			.ignore();
		await refreshDerivedColumns(trx, [sittingId], now);
		await appendToLogbook(trx, [{ at: now, by, kind: 'added_late', sessionId: session.id, sittingId, body: { seat } }]);
		return { ok: true, sittingId } as const;
	}).catch((error: unknown) => {
		if (error instanceof RefusalError) return refuse(error.refusal.message, error.refusal.instead ?? '');
		throw error;
	});
	if (result.ok) {
		tell(otium, touched);
		otium.hub.changed(session.id, [result.sittingId]);
		otium.hub.changed(session.id);
	}
	return result;
}

/** A further attempt in the session of the one before takes its place on the roster; whether there was one. */
async function takesPlaceOfEarlier(trx: Query, sessionId: string, candidateId: string, sittingId: string) {
	const earlier = await trx('sitting')
		.where({ session_id: sessionId, candidate_id: candidateId })
		.whereNull('next_attempt_id')
		.whereNot({ id: sittingId })
		.orderBy('attempt', 'desc')
		.first('id');
	if (!earlier) return false;
	await takePlaceOf(trx, sessionId, earlier.id, sittingId);
	return true;
}
