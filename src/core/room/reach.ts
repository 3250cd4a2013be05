import { TABLE, type CommandKind } from '../sitting';
import type { SeatView } from './view';

/** Whom an act would touch, and who stands where it does nothing. */
export type Reach = { touched: SeatView[]; left: SeatView[] };

/**
 * Told before an act is done, from what the screen knows. The server decides again by itself: whoever has moved
 * meanwhile is refused there, with what to do instead.
 */
export function reach(kind: CommandKind, seats: SeatView[]): Reach {
	const touched = seats.filter((seat) => isTouched(kind, seat));
	return { touched, left: seats.filter((seat) => !touched.includes(seat)) };
}

function isTouched(kind: CommandKind, seat: SeatView): boolean {
	if (seat.movedOn || !TABLE[kind].from.includes(seat.state)) return false;
	switch (kind) {
		case 'hand_in':
		case 'set_aside':
			return seat.begun;
		case 'let_in':
			return seat.device !== null;
		case 'move_device':
			return seat.device !== null || seat.state === 'on_hold';
		default:
			return true;
	}
}
