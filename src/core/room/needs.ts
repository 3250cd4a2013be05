import { groupBy } from '../group-by';
import { isInTheRoom } from '../sitting';
import { MINUTE } from '../time';
import { idleSince, progressOf, type Progress } from './progress';
import { remainingNow, type DoorRefusal, type SeatView } from './view';

/** Why somebody needs the proctor. */
export type NeedKind =
	| 'line_lost'
	| 'hand'
	| 'refused'
	| 'second_device'
	| 'copied'
	| 'at_door'
	| 'held_back'
	| 'spoiled'
	| 'rushing'
	| 'left'
	| 'held_by_rules'
	| 'on_hold'
	| 'time_short'
	| 'past_time'
	| 'idle'
	| 'behind'
	| 'ahead'
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
	/** Whose seat; null: somebody before the door who has none here, or many at once. */
	seat: SeatView | null;
	/** Everyone it concerns: one, many at once, or nobody who has a seat here. */
	seats: SeatView[];
	refusal: DoorRefusal | null;
	/** Smaller is more urgent. */
	urgency: number;
	tone: 'brick' | 'ochre' | 'slate';
	/** Since when, for the words and for the order among equals. */
	since: number;
	/** Raised when there is more of it: what was seen or put off comes back then. */
	revision: number;
	/** The acts offered, the one that settles it first. */
	acts: NeedAct[];
};

/**
 * The order of urgency, written down once: who is losing time comes first, then who asks or can't get in, then what
 * looks wrong, then who waits, then what may become a trouble.
 */
const URGENCY: Record<NeedKind, number> = {
	line_lost: 1,
	held_by_rules: 2,
	hand: 3,
	copied: 4,
	second_device: 5,
	at_door: 6,
	refused: 7,
	held_back: 8,
	spoiled: 9,
	rushing: 10,
	left: 11,
	on_hold: 12,
	time_short: 13,
	past_time: 14,
	idle: 15,
	battery: 16,
	behind: 17,
	ahead: 18
};

/** At the door near last entry is as urgent as a lost line. */
const DOOR_IS_CLOSING = 2 * MINUTE;
const LONG_HOLD = 3 * MINUTE;
const TIME_SHORT = 5 * MINUTE;
const MANY_BLANKS = 0.25;
const BATTERY_LOW = 0.15;
/** So many of a room at once have one cause, and are one need: a network that is gone, a room that is held. */
const MANY_AT_ONCE = 4;
const SHARE_AT_ONCE = 1 / 3;
/** One wrong number is a slip of the finger; the second try may want help. */
const TRIES_THAT_MATTER = 2;

export type RoomRules = { questions: number; leavingsAllowed: number; limitMinutes: number | null; opens: number };

/**
 * Who needs the proctor now, most urgent first. A seat appears once, with its most urgent need; many whose line is lost, or
 * who are on hold for one reason, share one need. Among equals the one who has waited longest comes first, so that the order
 * never changes by itself.
 */
export function needsYou(
	seats: SeatView[],
	refusals: DoorRefusal[],
	rules: RoomRules,
	now: number,
	progress = progressOf(seats, rules, now)
): Need[] {
	const each = seats.flatMap((seat) => needOf(seat, rules, progress.get(seat.id), now) ?? []);
	const inTheRoom = seats.filter(({ state }) => isInTheRoom(state)).length;
	return [...together(each, inTheRoom), ...refusals.flatMap((one) => refusedNeed(one, now) ?? [])].sort(
		(a, b) => a.urgency - b.urgency || a.since - b.since || a.key.localeCompare(b.key)
	);
}

/** How many need the proctor for the same reason, in the order of urgency. */
export function needCounts(needs: Need[]): [NeedKind, number][] {
	const counts = new Map<NeedKind, number>();
	for (const need of needs) counts.set(need.kind, (counts.get(need.kind) ?? 0) + Math.max(1, need.seats.length));
	return [...counts];
}

/** Who has what in common: the network that is gone, or what somebody held them for. */
const causeOf = ({ kind, seat }: Need): string | null =>
	kind === 'line_lost' ? kind : kind === 'on_hold' ? `${kind} ${seat!.reason ?? ''}` : null;

/** One need instead of those with one cause, where they are many of the room. */
function together(needs: Need[], inTheRoom: number): Need[] {
	return [...groupBy(needs, causeOf)].flatMap(([cause, alike]): Need[] => {
		if (cause === null || alike.length < MANY_AT_ONCE || alike.length < inTheRoom * SHARE_AT_ONCE) return alike;
		const since = alike.map((need) => need.since);
		return [
			{
				...alike[0],
				key: `together ${cause}`,
				seat: null,
				seats: alike.flatMap(({ seats }) => seats),
				since: Math.min(...since),
				// Put off, it comes back when another joins them.
				revision: Math.max(...since),
				acts: [alike[0].kind === 'line_lost' ? 'hold' : 'resume']
			}
		];
	});
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
					: refusal.code === 'again_elsewhere' || (refusal.waitsUntil !== null && refusal.waitsUntil > now)
						? ['forgive', 'seen']
						: ['seen'];
	return {
		key: `door ${refusal.id}`,
		kind: 'refused',
		seat: null,
		seats: [],
		refusal,
		urgency: URGENCY.refused,
		tone: 'slate',
		since: refusal.at,
		revision: refusal.tries,
		acts
	};
}

function needOf(seat: SeatView, rules: RoomRules, progress: Progress | undefined, now: number): Need | null {
	const { questions, leavingsAllowed } = rules;
	if (seat.movedOn) return null;
	const need = (
		kind: NeedKind,
		since: number,
		tone: Need['tone'],
		acts: NeedAct[],
		more: { urgency?: number; revision?: number } = {}
	): Need => ({
		key: `${kind} ${seat.id}`,
		kind,
		seat,
		seats: [seat],
		refusal: null,
		urgency: URGENCY[kind],
		tone,
		since,
		revision: since,
		acts,
		...more
	});

	if (seat.state === 'working' && seat.line?.up === false)
		return need('line_lost', seat.line.since, 'brick', ['free_device', 'hold']);
	const waits = seat.state === 'at_door' && seat.device !== null;
	// What an end has ended leaves the queue: nobody sits there any more. Whoever is at the door is let in first.
	if (seat.hand && isInTheRoom(seat.state) && !waits)
		return need('hand', seat.hand.at, 'slate', ['lower_hand', 'message']);
	const copied = seat.noted.filter((one) => one.what === 'forged' || one.what === 'second_line');
	if (copied.length > 0 && isInTheRoom(seat.state))
		return need('copied', Math.max(...copied.map((one) => one.at)), 'brick', ['seen', 'free_device', 'hold']);
	if (seat.otherDevice) return need('second_device', seat.otherDevice.at, 'brick', ['free_device', 'hold']);
	if (waits) {
		const closing = seat.lastEntry !== null && seat.lastEntry - now < DOOR_IS_CLOSING;
		return need('at_door', seat.since, 'slate', ['let_in', 'turn_away'], {
			urgency: closing ? URGENCY.line_lost : URGENCY.at_door
		});
	}
	// What the rules held waits for a person from the first second; a person's own hold is told when it lasts.
	if (seat.state === 'on_hold' && seat.heldBySystem && !seat.onBreak)
		return need('held_by_rules', seat.since, 'ochre', ['resume', 'message']);
	if (seat.state === 'on_hold' && !seat.onBreak && seat.heldFrom !== 'expected' && now - seat.since > LONG_HOLD)
		return need('on_hold', seat.since, 'ochre', ['resume']);
	if (seat.heldBack && seat.state !== 'set_aside')
		return need('held_back', seat.heldBack.since, 'ochre', ['count_answers', 'seen']);
	if (seat.state !== 'working') return null;

	if (seat.pace === 'spoiled')
		return need('spoiled', seat.since, 'brick', ['seen', 'message'], { revision: seat.rapid });
	if (seat.pace === 'hold' || seat.pace === 'watch')
		return need('rushing', seat.since, 'ochre', ['message', 'hold', 'seen'], { revision: seat.rapid });
	if (seat.lapses && (seat.lapses.awaySince !== null || seat.lapses.left > Math.max(1, leavingsAllowed)))
		return need('left', seat.lapses.last, 'ochre', ['message', 'hold', 'seen']);

	const remaining = remainingNow(seat, now);
	const blanks = questions - seat.answered;
	// Of a short paper the last quarter: it begins with as little.
	const short = Math.min(TIME_SHORT, (rules.limitMinutes ?? Infinity) * MINUTE * 0.25);
	if (remaining !== null && remaining > 0 && remaining < short && blanks > questions * MANY_BLANKS)
		return need('time_short', now - short + remaining, 'ochre', ['minutes', 'hold', 'seen'], {
			revision: seat.deadline ?? 0
		});
	if (progress === 'past_time') return need('past_time', seat.deadline!, 'ochre', ['seen', 'message']);
	if (progress === 'idle') {
		const idle = idleSince(seat, rules, now)!;
		return need('idle', idle, 'ochre', ['message', 'seen'], { revision: idle });
	}
	if (seat.battery !== null && seat.battery <= BATTERY_LOW)
		return need('battery', seat.since, 'ochre', ['seen', 'message'], { revision: Math.ceil(seat.battery * 20) });
	const isApart = progress === 'behind' || progress === 'ahead';
	return isApart ? need(progress, seat.beganAt ?? seat.since, 'slate', ['seen', 'message']) : null;
}
