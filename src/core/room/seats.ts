import type { RoomChange, SeatView } from './view';

/** The seats of a room by sitting, in their order. */
export type Seats = ReadonlyMap<string, SeatView>;

export function seatsOf(seats: SeatView[]): Seats {
	return new Map(seats.map((seat) => [seat.id, seat]));
}

/** The seats after a change. The same map again when it changes none. */
export function changedSeats(seats: Seats, { seats: changed, gone }: Pick<RoomChange, 'seats' | 'gone'>): Seats {
	if (changed.length + gone.length === 0) return seats;
	const next = new Map(seats);
	for (const seat of changed) next.set(seat.id, seat);
	for (const id of gone) next.delete(id);
	return next;
}
