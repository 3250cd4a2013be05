import {
	idleSince,
	isPastTime,
	lateBy,
	remainingNow,
	stateInWords,
	tallyKeyOf,
	type Progress,
	type RoomHead,
	type SeatView
} from '$core/room';
import { seatOrder } from '$core/seating';
import { clockLength, clockTime } from '$core/time';

/** A column of the room's list. Names and states are always there; the others are chosen. */
export type Column = {
	key: string;
	name: string;
	/** Shown unless somebody has chosen otherwise. */
	byDefault: boolean;
	/** What it is sorted by. */
	value: (seat: SeatView, now: number, head: RoomHead) => string | number;
	text: (seat: SeatView, now: number, head: RoomHead, progress: Progress | null) => string;
	/** How it is set, beside the rest of the row. */
	look?: string;
};

const isAtWork = (seat: SeatView) => ['working', 'line_lost', 'on_hold'].includes(tallyKeyOf(seat));
const PROGRESS_WORDS = { past_time: 'past time', idle: 'idle', behind: 'far behind', ahead: 'far ahead', late: 'late' };
const PACE_WORDS = { calm: '', watch: 'worth a look', hold: 'rushing', spoiled: 'spoiled' };

/** Every column that the list can show, in its order. */
export const COLUMNS: Column[] = [
	{
		key: 'seat',
		name: 'Seat',
		byDefault: true,
		value: (seat) => seatOrder(seat.seat),
		text: (seat) => seat.seat ?? (seat.elsewhere ? 'elsewhere' : '–'),
		look: 'text-ink-2 font-mono'
	},
	{ key: 'name', name: 'Candidate', byDefault: true, value: (seat) => seat.name, text: (seat) => seat.name },
	{
		key: 'state',
		name: 'Status',
		byDefault: true,
		value: (seat) => tallyKeyOf(seat),
		text: (seat, now) => `${stateInWords(seat)}${isPastTime(seat, now) ? ', past time' : ''}`
	},
	{
		key: 'arrived',
		name: 'Arrived',
		byDefault: false,
		value: (seat) => seat.arrivedAt ?? Infinity,
		text: (seat, _, head) => (seat.arrivedAt === null ? '' : clockTime(seat.arrivedAt, head.zone)),
		look: 'font-mono'
	},
	{
		key: 'late_by',
		name: 'Late',
		byDefault: true,
		value: (seat) => -(seat.arrivedAt ?? 0),
		text: (seat, _, head) => {
			const minutes = Math.floor(lateBy(seat, head.opens) / 60_000);
			return minutes > 0 ? `${minutes} min late` : '';
		}
	},
	{
		key: 'began',
		name: 'Began',
		byDefault: false,
		value: (seat) => seat.beganAt ?? Infinity,
		text: (seat, _, head) => (seat.beganAt === null ? '' : clockTime(seat.beganAt, head.zone)),
		look: 'font-mono'
	},
	{
		key: 'attempt',
		name: 'Attempt',
		byDefault: false,
		value: (seat) => -seat.attempt,
		text: (seat) => String(seat.attempt),
		look: 'tabular-nums'
	},
	{
		key: 'lost',
		name: 'Lost for',
		byDefault: false,
		value: (seat) => -seat.lost.ms,
		text: (seat) => (seat.lost.ms >= 1_000 ? clockLength(seat.lost.ms) : ''),
		look: 'font-mono'
	},
	{
		key: 'progress',
		name: 'Stands out',
		byDefault: true,
		value: (seat, now, head) => -(idleSince(seat, head, now) ?? 0),
		text: (seat, now, head, progress) => {
			const idle = idleSince(seat, head, now);
			if (idle !== null) return `idle ${clockLength(now - idle)}`;
			return progress === null ? '' : PROGRESS_WORDS[progress];
		}
	},
	{
		key: 'late',
		name: 'Late answers',
		byDefault: false,
		value: (seat) => -seat.late,
		text: (seat) => (seat.late > 0 ? `${seat.late} late` : ''),
		look: 'tabular-nums'
	},
	{
		key: 'answered',
		name: 'Answered',
		byDefault: true,
		value: (seat) => seat.answered,
		text: (seat, _, head) => `${seat.answered} of ${head.questions}${seat.marked > 0 ? `, ${seat.marked} marked` : ''}`,
		look: 'tabular-nums'
	},
	{
		key: 'question',
		name: 'On question',
		byDefault: false,
		value: (seat) => seat.at ?? -1,
		text: (seat) => (seat.at !== null && seat.state === 'working' ? String(seat.at + 1) : ''),
		look: 'tabular-nums'
	},
	{
		key: 'remaining',
		name: 'Left',
		byDefault: true,
		value: (seat, now) => remainingNow(seat, now) ?? Infinity,
		text: (seat, now) => (isAtWork(seat) && seat.remaining !== null ? clockLength(remainingNow(seat, now)!) : ''),
		look: 'font-mono'
	},
	{
		key: 'ends',
		name: 'Ends',
		byDefault: false,
		value: (seat) => seat.deadline ?? Infinity,
		text: (seat, _, head) => (isAtWork(seat) && seat.deadline !== null ? clockTime(seat.deadline, head.zone) : ''),
		look: 'font-mono'
	},
	{
		key: 'given',
		name: 'Given',
		byDefault: true,
		value: (seat) => `${seat.extra ?? ''}${seat.ownWindow ? ' w' : ''}` || '~',
		text: (seat) => [seat.extra, seat.ownWindow ? 'own window' : null].filter(Boolean).join(', '),
		look: 'text-plum font-semibold'
	},
	{
		key: 'pace',
		name: 'Pace',
		byDefault: false,
		value: (seat) => -seat.rapid,
		text: (seat) => (seat.rapid > 0 ? `${PACE_WORDS[seat.pace]} ${seat.rapid} fast`.trim() : '')
	},
	{
		key: 'left_screen',
		name: 'Left screen',
		byDefault: false,
		value: (seat) => -(seat.lapses?.left ?? 0),
		text: (seat) => (seat.lapses && seat.lapses.left > 0 ? `${seat.lapses.left} times` : '')
	},
	{
		key: 'device',
		name: 'Device',
		byDefault: false,
		value: (seat) => seat.device ?? '~',
		text: (seat) => seat.device ?? ''
	},
	{
		key: 'battery',
		name: 'Battery',
		byDefault: false,
		value: (seat) => seat.battery ?? 2,
		text: (seat) => (seat.battery === null ? '' : `${Math.round(100 * seat.battery)} %`),
		look: 'tabular-nums'
	},
	{
		key: 'unread',
		name: 'Not read yet',
		byDefault: false,
		value: (seat) => -(seat.unread?.count ?? 0),
		text: (seat) => (seat.unread ? String(seat.unread.count) : '')
	},
	{
		key: 'receipt',
		name: 'Receipt',
		byDefault: false,
		value: (seat) => seat.receipt ?? '~',
		text: (seat) => seat.receipt ?? '',
		look: 'font-mono'
	}
];
export const ALWAYS = ['name', 'state'];

/** The room's seats by one column; among equals by candidate number, so that nothing jumps about. */
export function sorted(seats: SeatView[], by: Column, down: boolean, now: number, head: RoomHead): SeatView[] {
	return [...seats].sort((a, b) => {
		const [x, y] = [by.value(a, now, head), by.value(b, now, head)];
		const order = typeof x === 'number' ? x - (y as number) || 0 : x.localeCompare(y as string);
		return (down ? -order : order) || a.number.localeCompare(b.number);
	});
}
