import { nanoid } from 'nanoid';
import { seatRows, usableSeats, type SeatPlan } from '$core/seating';
import type { Actor } from '$core/sitting';
import { transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Writing } from '../house';

/** A room with its seats as they stand. */
export type Room = {
	id: string;
	name: string;
	siteId: string;
	site: string;
	rows: number;
	perRow: number;
	plan: SeatPlan;
	revision: number;
	seats: number;
	/** Sessions to come or running here. */
	sessions: number;
};

/** The rooms of these sites (null: of all). */
export async function listRooms(db: Query, siteIds: string[] | null): Promise<Room[]> {
	const rows: Record<string, string | number>[] = await db('room')
		.join('site', 'site.id', 'room.site_id')
		.modify((query) => {
			if (siteIds !== null) query.whereIn('site.id', siteIds);
		})
		.orderBy(['site.name', 'room.name'])
		.select('room.*', 'site.name as site');
	const used: { room_id: string; n: number }[] = await db('session')
		.whereNull('ended_at')
		.groupBy('room_id')
		.select('room_id')
		.count('* as n');
	return rows.map((row) => {
		const plan: SeatPlan = JSON.parse(row.plan as string);
		const [rows, perRow] = [row.seat_rows as number, row.seats_per_row as number];
		return {
			id: row.id as string,
			name: row.name as string,
			siteId: row.site_id as string,
			site: row.site as string,
			rows,
			perRow,
			plan,
			revision: row.revision as number,
			seats: usableSeats(rows, perRow, plan).length,
			sessions: used.find((one) => one.room_id === row.id)?.n ?? 0
		};
	});
}

export type RoomChange = {
	id: string | null;
	siteId: string;
	revision: number;
	name: string;
	rows: number;
	perRow: number;
	plan: SeatPlan;
};
export type RoomResult = { ok: true; id: string; revision: number; notes: string[] } | { ok: false; message: string };

/** Makes a room or changes it. A seat that somebody is to sit on in an open session is not taken away silently. */
export async function saveRoom(otium: Writing, by: Actor, change: RoomChange): Promise<RoomResult> {
	return transact(otium.db, async (trx): Promise<RoomResult> => {
		const namesake = await trx('room')
			.where({ site_id: change.siteId, name: change.name })
			.whereNot({ id: change.id ?? '' })
			.first('id');
		if (namesake) return { ok: false, message: `There is a room named “${change.name}” at this site already.` };
		const all = new Set(seatRows(change.rows, change.perRow).flat());
		const plan: SeatPlan = {
			outOfUse: change.plan.outOfUse.filter((seat) => all.has(seat)),
			apart: change.plan.apart.filter((seat) => all.has(seat))
		};
		const columns = {
			name: change.name,
			seat_rows: change.rows,
			seats_per_row: change.perRow,
			plan: JSON.stringify(plan)
		};
		const id = change.id ?? nanoid();
		const revision = change.id === null ? 1 : change.revision + 1;
		if (change.id === null) await trx('room').insert({ id, site_id: change.siteId, ...columns });
		else {
			const changed = await trx('room')
				.where({ id, revision: change.revision })
				.update({ ...columns, revision });
			if (changed === 0)
				return {
					ok: false,
					message: 'Somebody else has just changed this room. Load it again to see their changes.'
				};
		}
		const body = { name: change.name, seats: usableSeats(change.rows, change.perRow, plan).length };
		await appendToLogbook(trx, [
			{ at: otium.now(), by, kind: change.id === null ? 'room_made' : 'room_changed', body }
		]);
		return {
			ok: true,
			id,
			revision,
			notes: await displaced(trx, id, new Set(usableSeats(change.rows, change.perRow, plan)))
		};
	});
}

/** Sessions in which somebody's seat is not in use any more. */
async function displaced(trx: Query, roomId: string, usable: Set<string>): Promise<string[]> {
	const rows: { name: string; seat: string }[] = await trx('roster')
		.join('session', 'session.id', 'roster.session_id')
		.where({ room_id: roomId })
		.whereNull('ended_at')
		.whereNotNull('seat')
		.select('session.name', 'seat');
	const bySession = new Map<string, number>();
	for (const row of rows) if (!usable.has(row.seat)) bySession.set(row.name, (bySession.get(row.name) ?? 0) + 1);
	return [...bySession].map(
		([name, n]) =>
			`${name}: ${n} ${n === 1 ? 'person keeps a seat that is' : 'people keep seats that are'} not in use now. Save the session again to reseat them.`
	);
}
