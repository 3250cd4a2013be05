import { nanoid } from 'nanoid';
import { assignSeats, type SeatPlan } from '$core/seating';
import { newSitting, type Actor } from '$core/sitting';
import { transact } from '../db';
import { appendToLogbook } from '../logbook';
import type { Otium } from '../otium';
import { actIn, refreshConsequences, tell, type Touched } from '../sitting';
import { rosterFor } from './roster';
import type { Session } from './session';

type Problem = { code: string; message: string; instead?: string };

/**
 * Puts somebody on the list of a session whose door is open, on the first free seat. Whoever was absent from or carried
 * over out of another session of the paper goes on with the sitting they have.
 */
export async function addToSession(
	otium: Otium,
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
			await actIn(
				trx,
				now,
				[
					{ id: nanoid(), sittingId, by, body: { kind: 'assign', sessionId: session.id } },
					{ id: nanoid(), sittingId, by, body: { kind: 'expect_again' } }
				],
				touched
			);
		}
		const taken: string[] = await trx('roster').where({ session_id: session.id }).whereNotNull('seat').pluck('seat');
		const { plan } = (await trx('room').where({ id: session.room.id }).first('plan')) as { plan: string };
		const seats = JSON.parse(plan) as SeatPlan;
		const free = { ...seats, outOfUse: [...seats.outOfUse, ...taken] };
		const [seat] = assignSeats([{ apart: false }], session.room.rows, session.room.seatsPerRow, free);
		await trx('roster').insert({ session_id: session.id, sitting_id: sittingId, seat });
		await refreshConsequences(trx, [sittingId], now);
		await appendToLogbook(trx, [{ at: now, by, kind: 'added_late', sessionId: session.id, sittingId, body: { seat } }]);
		return { ok: true, sittingId } as const;
	});
	if (result.ok) {
		tell(otium, touched);
		otium.hub.changed(session.id, [result.sittingId]);
	}
	return result;
}
