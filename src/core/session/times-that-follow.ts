import type { SessionRules } from './rules';

type Entered = { time: string; until: string | null; rules: Pick<SessionRules, 'timing'> };
/** On the room's clock, as HH:MM; null: there is none. */
export type TimesThatFollow = { door: string; lastEntry: string | null; lastFullStart: string | null };

const DAY_MINUTES = 24 * 60;

/**
 * The times that follow from those that were entered, on the same clock: when the door opens, the last entry, and the
 * last start that still has the whole limit, where the close cuts it.
 * @param entered times as HH:MM
 */
export function timesThatFollow({ time, until, rules: { timing } }: Entered): TimesThatFollow {
	const { limitMinutes, lastEntryMinutes, doorOpensMinutes, atClose } = timing;
	return {
		door: minutesFrom(time, -doorOpensMinutes),
		lastEntry: lastEntryMinutes === null ? null : minutesFrom(time, lastEntryMinutes),
		lastFullStart: until && limitMinutes !== null && atClose === 'cut' ? minutesFrom(until, -limitMinutes) : null
	};
}

/** Minutes from one time of day to another, both HH:MM; below nothing when it is earlier. */
export function minutesBetween(from: string, to: string): number {
	const [a, b] = [from, to].map((time) => Number(time.slice(0, 2)) * 60 + Number(time.slice(3)));
	return b - a;
}

/** A time of day so many minutes after another, as HH:MM. @param minutes may lead into another day, whose clock it is then */
export function minutesFrom(time: string, minutes: number): string {
	const [hour, minute] = time.split(':').map(Number);
	const at = (((hour * 60 + minute + minutes) % DAY_MINUTES) + DAY_MINUTES) % DAY_MINUTES;
	return [Math.floor(at / 60), at % 60].map((part) => String(part).padStart(2, '0')).join(':');
}
