import { SITTING_STATES, STATE_NAMES, type SittingState } from '../sitting';
import type { SeatView } from './view';

/** What the tally counts: the states, with those whose line is lost while they work told apart. */
export type TallyKey = SittingState | 'line_lost';
export const TALLY_ORDER: readonly TallyKey[] = [
	'expected',
	'at_door',
	'let_in',
	'working',
	'line_lost',
	'on_hold',
	'handed_in',
	'time_up',
	'carried_over',
	'absent',
	'set_aside'
];

/** The one tally column that a seat stands in. */
export function tallyKeyOf(seat: Pick<SeatView, 'state' | 'line'>): TallyKey {
	return seat.state === 'working' && seat.line?.up === false ? 'line_lost' : seat.state;
}

/** What staff read of where somebody stands; a freed device leaves nobody at the door. */
export function stateInWords(seat: Pick<SeatView, 'state' | 'line' | 'device' | 'onBreak'>): string {
	if (tallyKeyOf(seat) === 'line_lost') return 'Line lost';
	if (isAwayFromDoor(seat)) return 'Device freed, not back yet';
	return seat.onBreak ? 'On a break' : STATE_NAMES[seat.state];
}

/** Its device was freed, or it was turned away after having worked: it has a place at the door, and nobody is there. */
export function isAwayFromDoor(seat: Pick<SeatView, 'state' | 'device'>): boolean {
	return seat.state === 'at_door' && seat.device === null;
}

/** How many stand in each column; the numbers add up to the room. */
export function tallyOf(seats: SeatView[]): Record<TallyKey, number> {
	const tally = Object.fromEntries([...SITTING_STATES, 'line_lost'].map((key) => [key, 0])) as Record<TallyKey, number>;
	for (const seat of seats) tally[tallyKeyOf(seat)]++;
	return tally;
}
