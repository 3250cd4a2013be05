import { DateTime } from 'luxon';
import { knownZone, wallClock } from './known-zone';
import { shownTime } from './house-style';

/** A wall-clock time read in a zone: one instant, or a question for the person who typed it. */
export type LocalInstant =
	| { ok: true; at: number }
	| { ok: false; why: 'unreadable' }
	/** The clocks jump over it; `instead` is the first instant after the jump. */
	| { ok: false; why: 'does_not_exist'; instead: number }
	/** The clocks go back over it; both instants, earlier first. */
	| { ok: false; why: 'exists_twice'; choices: [number, number] };

/**
 * Reads a local date (`2026-12-08`) and time (`09:00`) in an IANA zone.
 * A time that daylight saving skips or repeats is never guessed.
 */
export function instantFromLocal(date: string, time: string, zone: string): LocalInstant {
	const wall = DateTime.fromISO(`${date}T${time}`, { zone: knownZone(zone) });
	if (!wall.isValid) return { ok: false, why: 'unreadable' };
	if (wall.toFormat('yyyy-MM-dd HH:mm') !== `${date} ${time}`) {
		return { ok: false, why: 'does_not_exist', instead: wall.startOf('hour').toMillis() };
	}
	const choices = wall
		.getPossibleOffsets()
		.map((possible) => possible.toMillis())
		.sort((a, b) => a - b);
	if (choices.length > 1) return { ok: false, why: 'exists_twice', choices: [choices[0], choices[1]] };
	return { ok: true, at: wall.toMillis() };
}

/** The local date of an instant, `yyyy-MM-dd`. */
export function localDate(at: number, zone: string): string {
	return wallClock(at, zone).toISODate()!;
}

/** The local time of an instant as it is kept and sent, `HH:mm`. */
export function localTime(at: number, zone: string): string {
	return wallClock(at, zone).toFormat('HH:mm');
}

/** The local time of an instant as people read it, in the house's style: `09:30`, or `9:30 am`; with seconds if wanted. */
export function clockTime(at: number, zone: string, seconds = false): string {
	return shownTime(wallClock(at, zone).toFormat(seconds ? 'HH:mm:ss' : 'HH:mm'));
}

/** The local day that an instant falls on: from its first instant until that of the next, whatever the clocks do in between. */
export function localDay(at: number, zone: string): { from: number; until: number } {
	const day = wallClock(at, zone).startOf('day');
	// Where the clocks jump over midnight a day begins at one, and the next does not.
	return { from: day.toMillis(), until: day.plus({ days: 1 }).startOf('day').toMillis() };
}

/** The instant at which the local day of `at` ends, whatever daylight saving does to its length. */
export function localMidnightAfter(at: number, zone: string): number {
	return localDay(at, zone).until;
}

/** Whether two instants fall on one local day. */
export function sameLocalDay(a: number, b: number, zone: string): boolean {
	return localDate(a, zone) === localDate(b, zone);
}

/** The zone's short name at that instant: `GMT`, `GMT-1`. */
export function zoneName(at: number, zone: string): string {
	const parts = new Intl.DateTimeFormat('en-GB', { timeZone: zone, timeZoneName: 'short' }).formatToParts(at);
	return parts.find((part) => part.type === 'timeZoneName')?.value.replace(/[+-]0$/, '') ?? zone;
}

/**
 * The name of the zone that a time is told in, to stand behind it: ` GMT-1`. Empty where the reader's own
 * clock shows the same time.
 */
export function zoneBeside(at: number, told: string, readers: string): string {
	return timeElsewhere(at, told, readers) === null ? '' : ` ${zoneName(at, told)}`;
}

/** `Tuesday 8 December`, with the year when it is not `now`'s. */
export function longDate(at: number, zone: string, now = at): string {
	const day = wallClock(at, zone);
	const sameYear = day.year === wallClock(now, zone).year;
	return day.setLocale('en-GB').toFormat(sameYear ? 'cccc d LLLL' : 'cccc d LLLL yyyy');
}

/** `8 Dec`. */
export function shortDate(at: number, zone: string): string {
	return wallClock(at, zone).setLocale('en-GB').toFormat('d LLL').replace('Sept', 'Sep');
}

/** The time, with its date when that is not today's; with seconds if wanted. */
export function timeAndDate(at: number, zone: string, now: number, seconds = false): string {
	const time = clockTime(at, zone, seconds);
	return sameLocalDay(at, now, zone) ? time : `${shortDate(at, zone)} ${time}`;
}

/**
 * The time on a clock in another zone, with the day where it differs: `Thursday 10 December, 01:00`. null: both clocks
 * show the same time.
 */
export function timeElsewhere(at: number, told: string, zone: string): string | null {
	const isSameDay = localDate(at, told) === localDate(at, zone);
	if (isSameDay && localTime(at, told) === localTime(at, zone)) return null;
	return isSameDay ? clockTime(at, zone) : `${longDate(at, zone)}, ${clockTime(at, zone)}`;
}
