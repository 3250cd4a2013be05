import type { Problem } from '$core/problem';
import { seatRows, type SeatPlan } from '$core/seating';
import type { Actor } from '$core/sitting';
import { transact } from '../db';
import { appendToLogbook } from '../logbook';
import type { Acting } from '../house';
import type { Session } from '../records';

type Moved = { ok: true; from: string | null; exchangedWith: string | null };

/** Seats somebody elsewhere in the room; whoever has that seat gets theirs. */
export async function reseat(
	otium: Acting,
	by: Actor,
	session: Session,
	sittingId: string,
	seat: string
): Promise<Moved | { ok: false; problem: Problem }> {
	const refuse = (message: string, instead: string) =>
		({ ok: false, problem: { code: 'seat', message, instead } }) as const;
	const touched = [sittingId];
	const result = await transact(otium.db, async (trx): Promise<Moved | { ok: false; problem: Problem }> => {
		const { plan } = (await trx('room').where({ id: session.room.id }).first('plan')) as { plan: string };
		if (!seatRows(session.room.rows, session.room.seatsPerRow).flat().includes(seat))
			return refuse(`The ${session.room.name} has no seat ${seat}.`, 'Choose one of its seats.');
		if ((JSON.parse(plan) as SeatPlan).outOfUse.includes(seat))
			return refuse(`Seat ${seat} is out of use.`, 'Choose another, or put it back into use under Prepare, Rooms.');
		const rows: { sitting_id: string; seat: string | null }[] = await trx('roster')
			.where({ session_id: session.id })
			.select('sitting_id', 'seat');
		const mine = rows.find((row) => row.sitting_id === sittingId);
		if (!mine) return refuse('This candidate is no longer in this session.', 'Look again.');
		const there = rows.find((row) => row.seat === seat && row !== mine);
		const put = (id: string, to: string | null) =>
			trx('roster').where({ session_id: session.id, sitting_id: id }).update({ seat: to });
		await put(sittingId, seat);
		if (there) {
			await put(there.sitting_id, mine.seat);
			touched.push(there.sitting_id);
		}
		await appendToLogbook(trx, [
			{
				at: otium.now(),
				by,
				kind: 'reseated',
				sessionId: session.id,
				sittingId,
				body: { from: mine.seat, to: seat }
			}
		]);
		return { ok: true, from: mine.seat, exchangedWith: there?.sitting_id ?? null };
	});
	otium.hub.changed(session.id, touched);
	return result;
}
