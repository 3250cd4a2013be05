import { MINUTE } from '../time';
import { remainingNow, type SeatView } from './view';

/** Why somebody needs the proctor. */
export type NeedKind = 'line_lost' | 'second_device' | 'at_door' | 'on_hold' | 'time_short';

export type Need = {
	seat: SeatView;
	kind: NeedKind;
	/** Smaller is more urgent. */
	urgency: number;
	tone: 'brick' | 'ochre' | 'slate';
	/** Since when, for the words and for the order among equals. */
	since: number;
	/** The acts offered, the one that settles it first. */
	acts: ('let_in' | 'turn_away' | 'resume' | 'free_device' | 'hold' | 'minutes')[];
};

/** The order of urgency, written down once: who is losing time comes first, then who cannot get in, then who waits. */
const URGENCY: Record<NeedKind, number> = { line_lost: 1, second_device: 2, at_door: 3, on_hold: 4, time_short: 5 };

/** At the door near last entry is as urgent as a lost line. */
const DOOR_IS_CLOSING = 2 * MINUTE;
const LONG_HOLD = 3 * MINUTE;
const TIME_SHORT = 5 * MINUTE;
const MANY_BLANKS = 0.25;

/**
 * Who needs the proctor now, most urgent first. A seat appears once, with its most urgent need.
 * Among equals whoever has waited longest comes first, so that the order never flickers.
 * @param questions how many questions the paper has
 */
export function needsYou(seats: SeatView[], questions: number, now: number): Need[] {
	return seats
		.flatMap((seat) => needOf(seat, questions, now) ?? [])
		.sort((a, b) => a.urgency - b.urgency || a.since - b.since || a.seat.number.localeCompare(b.seat.number));
}

function needOf(seat: SeatView, questions: number, now: number): Need | null {
	if (seat.movedOn) return null;
	const need = (
		kind: NeedKind,
		since: number,
		tone: Need['tone'],
		acts: Need['acts'],
		urgency = URGENCY[kind]
	): Need => ({
		seat,
		kind,
		urgency,
		tone,
		since,
		acts
	});

	if (seat.state === 'working' && seat.line?.up === false)
		return need('line_lost', seat.line.since, 'brick', ['free_device', 'hold']);
	if (seat.otherDevice) return need('second_device', seat.otherDevice.at, 'brick', ['free_device', 'hold']);
	if (seat.state === 'at_door' && seat.device) {
		const closing = seat.lastEntry !== null && seat.lastEntry - now < DOOR_IS_CLOSING;
		return need('at_door', seat.since, 'slate', ['let_in', 'turn_away'], closing ? URGENCY.line_lost : URGENCY.at_door);
	}
	if (seat.state === 'on_hold' && seat.heldFrom !== 'expected' && now - seat.since > LONG_HOLD) {
		return need('on_hold', seat.since, 'ochre', ['resume']);
	}
	if (seat.state !== 'working') return null;

	const remaining = remainingNow(seat, now);
	const blanks = questions - seat.answered;
	if (remaining !== null && remaining > 0 && remaining < TIME_SHORT && blanks > questions * MANY_BLANKS) {
		return need('time_short', now - TIME_SHORT + remaining, 'ochre', ['minutes', 'hold']);
	}
	return null;
}
