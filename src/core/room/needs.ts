import { MINUTE } from '../time';
import { remainingNow, type DoorRefusal, type SeatView } from './view';

/** Why somebody needs the proctor. */
export type NeedKind =
	| 'line_lost'
	| 'hand'
	| 'refused'
	| 'second_device'
	| 'at_door'
	| 'held_back'
	| 'spoiled'
	| 'rushing'
	| 'left'
	| 'on_hold'
	| 'time_short'
	| 'battery';

export type NeedAct =
	| 'let_in'
	| 'turn_away'
	| 'resume'
	| 'free_device'
	| 'hold'
	| 'minutes'
	| 'message'
	| 'lower_hand'
	| 'set_aside'
	| 'count_answers'
	| 'admit'
	| 'add'
	| 'forgive'
	| 'seen';

/** Acts that settle a need by themselves, with nothing to be asked first. */
export const SETTLED_AT_ONCE: readonly NeedAct[] = ['seen', 'lower_hand', 'admit', 'add', 'forgive'];

export type Need = {
	/** The same need keeps its key. */
	key: string;
	kind: NeedKind;
	/** Whose seat; null: somebody before the door who has none here. */
	seat: SeatView | null;
	refusal: DoorRefusal | null;
	/** Smaller is more urgent. */
	urgency: number;
	tone: 'brick' | 'ochre' | 'slate';
	/** Since when, for the words and for the order among equals. */
	since: number;
	/** The acts offered, the one that settles it first. */
	acts: NeedAct[];
};

/**
 * The order of urgency, written down once: who is losing time comes first, then who asks or can't get in, then what
 * looks wrong, then who waits, then what may become a trouble.
 */
const URGENCY: Record<NeedKind, number> = {
	line_lost: 1,
	hand: 2,
	second_device: 3,
	at_door: 4,
	refused: 5,
	held_back: 6,
	spoiled: 7,
	rushing: 8,
	left: 9,
	on_hold: 10,
	time_short: 11,
	battery: 12
};

/** At the door near last entry is as urgent as a lost line. */
const DOOR_IS_CLOSING = 2 * MINUTE;
const LONG_HOLD = 3 * MINUTE;
const TIME_SHORT = 5 * MINUTE;
const MANY_BLANKS = 0.25;
const BATTERY_LOW = 0.15;
/** One wrong number is a slip of the finger; the second try may want help. */
const TRIES_THAT_MATTER = 2;

export type RoomRules = { questions: number; leavingsAllowed: number };

/**
 * Who needs the proctor now, most urgent first. A seat appears once, with its most urgent need.
 * Among equals whoever has waited longest comes first, so that the order never flickers.
 */
export function needsYou(seats: SeatView[], refusals: DoorRefusal[], rules: RoomRules, now: number): Need[] {
	return [
		...seats.flatMap((seat) => needOf(seat, rules, now) ?? []),
		...refusals.flatMap((one) => refusedNeed(one, now) ?? [])
	].sort((a, b) => a.urgency - b.urgency || a.since - b.since || a.key.localeCompare(b.key));
}

/** How many need the proctor for the same reason, in the order of urgency. */
export function needCounts(needs: Need[]): [NeedKind, number][] {
	const counts = new Map<NeedKind, number>();
	for (const need of needs) counts.set(need.kind, (counts.get(need.kind) ?? 0) + 1);
	return [...counts];
}

function refusedNeed(refusal: DoorRefusal, now: number): Need | null {
	if (refusal.code === 'identity_unknown' && refusal.tries < TRIES_THAT_MATTER) return null;
	const acts: NeedAct[] =
		refusal.code === 'past_last_entry' || refusal.code === 'window_over'
			? ['admit', 'seen']
			: refusal.code === 'not_on_list' || refusal.code === 'wrong_session'
				? ['add', 'seen']
				: refusal.code === 'barred'
					? ['resume', 'seen']
					: refusal.waitsUntil !== null && refusal.waitsUntil > now
						? ['forgive', 'seen']
						: ['seen'];
	return {
		key: `door ${refusal.id}`,
		kind: 'refused',
		seat: null,
		refusal,
		urgency: URGENCY.refused,
		tone: 'slate',
		since: refusal.at,
		acts
	};
}

function needOf(seat: SeatView, { questions, leavingsAllowed }: RoomRules, now: number): Need | null {
	if (seat.movedOn) return null;
	const need = (kind: NeedKind, since: number, tone: Need['tone'], acts: NeedAct[], urgency = URGENCY[kind]): Need => ({
		key: `${kind} ${seat.id}`,
		kind,
		seat,
		refusal: null,
		urgency,
		tone,
		since,
		acts
	});

	if (seat.state === 'working' && seat.line?.up === false)
		return need('line_lost', seat.line.since, 'brick', ['free_device', 'hold']);
	if (seat.hand) return need('hand', seat.hand.at, 'slate', ['lower_hand', 'message']);
	if (seat.otherDevice) return need('second_device', seat.otherDevice.at, 'brick', ['free_device', 'hold']);
	if (seat.state === 'at_door' && seat.device) {
		const closing = seat.lastEntry !== null && seat.lastEntry - now < DOOR_IS_CLOSING;
		return need('at_door', seat.since, 'slate', ['let_in', 'turn_away'], closing ? URGENCY.line_lost : URGENCY.at_door);
	}
	if (seat.state === 'on_hold' && seat.heldFrom !== 'expected' && now - seat.since > LONG_HOLD)
		return need('on_hold', seat.since, 'ochre', ['resume']);
	if (seat.heldBack && seat.state !== 'set_aside')
		return need('held_back', seat.heldBack.since, 'ochre', ['count_answers', 'seen']);
	if (seat.state !== 'working') return null;

	// What a pace or a leaving says is dated by what it says, so that "seen" holds until there is more of it.
	if (seat.pace === 'spoiled') return need('spoiled', seat.rapid, 'brick', ['seen', 'message']);
	if (seat.pace === 'hold' || seat.pace === 'watch')
		return need('rushing', seat.rapid, 'ochre', ['message', 'hold', 'seen']);
	if (seat.lapses && (seat.lapses.awaySince !== null || seat.lapses.left > Math.max(1, leavingsAllowed)))
		return need('left', seat.lapses.last, 'ochre', ['message', 'hold', 'seen']);

	const remaining = remainingNow(seat, now);
	const blanks = questions - seat.answered;
	if (remaining !== null && remaining > 0 && remaining < TIME_SHORT && blanks > questions * MANY_BLANKS)
		return need('time_short', now - TIME_SHORT + remaining, 'ochre', ['minutes', 'hold', 'seen']);
	if (seat.battery !== null && seat.battery <= BATTERY_LOW)
		return need('battery', seat.battery, 'ochre', ['seen', 'message']);
	return null;
}
