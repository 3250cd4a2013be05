import { MINUTE } from '../time';
import { isPastTime, remainingNow, type SeatView } from './view';

/**
 * Somebody at work who gives no answer for longer than reading and thinking explain: three minutes, or twice what the
 * paper leaves for a question where that is more. Those who have answered everything are checking their work.
 */
const IDLE_MS = 3 * MINUTE;
const QUESTIONS_OF_THOUGHT = 2;
/** Far behind is half as fast as the middle of the room, far ahead twice as fast: each in their own working time. */
const FAR = 2;
/** Before a fifth of one's time has gone, and with fewer than five to compare, a speed says nothing. */
const LEAST_SHARE = 0.2;
const LEAST_PEOPLE = 5;

/** `late`: came after the opening and has not begun yet. */
export type Progress = 'past_time' | 'idle' | 'behind' | 'ahead' | 'late';
type Rules = { questions: number; limitMinutes: number | null; opens: number };

/** Since when somebody has given no answer although they work; null: they answer, or need not. */
export function idleSince(
	seat: SeatView,
	{ questions, limitMinutes }: Omit<Rules, 'opens'>,
	now: number
): number | null {
	if (!isAtWork(seat) || seat.standing || seat.answered >= questions) return null;
	const since = Math.max(seat.lastAnswerAt ?? 0, seat.beganAt ?? 0, seat.since);
	const aQuestion = limitMinutes === null ? 0 : (limitMinutes * MINUTE) / Math.max(1, questions);
	return now - since > Math.max(IDLE_MS, QUESTIONS_OF_THOUGHT * aQuestion) ? since : null;
}

/** Answers for each part of one's own time, 1: as fast as the time goes; null: nothing can be said yet. */
function speedOf(seat: SeatView, questions: number, now: number): number | null {
	const remaining = remainingNow(seat, now);
	if (!isAtWork(seat) || remaining === null || !seat.allotted || questions === 0) return null;
	const share = 1 - remaining / seat.allotted;
	return share < LEAST_SHARE ? null : seat.answered / questions / share;
}

/**
 * Whether somebody is far behind the room or far ahead of it.
 * @returns by sitting; who is neither is not in it
 */
export function apartFromRoom(
	seats: SeatView[],
	{ questions }: Pick<Rules, 'questions'>,
	now: number
): Map<string, 'behind' | 'ahead'> {
	const speeds = seats.flatMap((seat) => {
		const speed = speedOf(seat, questions, now);
		return speed === null ? [] : [{ seat, speed }];
	});
	if (speeds.length < LEAST_PEOPLE) return new Map();
	const middle = speeds.map(({ speed }) => speed).sort((a, b) => a - b)[Math.floor(speeds.length / 2)];
	return new Map(
		speeds.flatMap(({ seat, speed }): [string, 'behind' | 'ahead'][] => {
			if (speed * FAR < middle && seat.answered < questions) return [[seat.id, 'behind']];
			return middle > 0 && speed > middle * FAR ? [[seat.id, 'ahead']] : [];
		})
	);
}

/** What stands out about how somebody comes on, by sitting: the first of what applies. */
export function progressOf(seats: SeatView[], rules: Rules, now: number): Map<string, Progress> {
	const apart = apartFromRoom(seats, rules, now);
	return new Map(
		seats.flatMap((seat): [string, Progress][] => {
			const progress = isPastTime(seat, now)
				? 'past_time'
				: idleSince(seat, rules, now) !== null
					? 'idle'
					: isLate(seat, rules.opens)
						? 'late'
						: apart.get(seat.id);
			return progress ? [[seat.id, progress]] : [];
		})
	);
}

const isLate = (seat: SeatView, opens: number) =>
	(seat.state === 'at_door' || seat.state === 'let_in') && !seat.begun && lateBy(seat, opens) > 0;

/** How long after the opening somebody came, in ms; 0: in time, or not known. */
export function lateBy({ arrivedAt, ownWindow }: SeatView, opens: number): number {
	return arrivedAt === null ? 0 : Math.max(0, arrivedAt - (ownWindow?.opens ?? opens));
}

const isAtWork = (seat: SeatView) => seat.state === 'working' && seat.line?.up !== false && seat.begun && !seat.movedOn;
