import { hasEnded, TABLE, type CommandKind, type Role } from '../sitting';
import type { SeatView } from './view';

/** What staff can do to a sitting from the live room, in the order in which a candidate's panel offers it. */
export const STAFF_ACTS = [
	'let_in',
	'turn_away',
	'resume',
	'reopen',
	'mark_absent',
	'expect_again',
	'restore',
	'hold',
	'move_device',
	'hand_in',
	'carry_over',
	'continue_later',
	'allow_fresh',
	'set_aside'
] as const satisfies readonly CommandKind[];
export type StaffAct = (typeof STAFF_ACTS)[number];

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

/** What of a sitting decides which acts would touch it. */
export type Touchable = Pick<SeatView, 'state' | 'begun' | 'device' | 'onBreak' | 'movedOn'>;

/** What can be done to one candidate now, by the state machine's own table. */
export function offers(seat: Touchable, role: Extract<Role, 'proctor' | 'coordinator'>): StaffAct[] {
	return STAFF_ACTS.filter((act) => TABLE[act].who.includes(role) && isTouched(act, seat));
}

function isTouched(kind: CommandKind, seat: Touchable): boolean {
	if (seat.movedOn || !TABLE[kind].from.includes(seat.state)) return false;
	switch (kind) {
		case 'hand_in':
		case 'set_aside':
			return seat.begun;
		case 'mark_absent':
			return !seat.begun;
		case 'let_in':
			return seat.device !== null;
		case 'move_device':
			// What has ended is freed where a further attempt asks for it, and not by a selection of many.
			return !hasEnded(seat.state) && (seat.device !== null || seat.state === 'on_hold');
		case 'hold':
			// A hold takes the place of a break, and of nothing else.
			return seat.state !== 'on_hold' || seat.onBreak;
		default:
			return true;
	}
}
