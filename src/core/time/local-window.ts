import { DateTime } from 'luxon';
import { shownTime } from './house-style';
import type { Window } from './rules';
import { clockTime, instantFromLocal, localDate, localMidnightAfter, localTime, longDate, zoneName } from './zone';

/** A window as it is entered: days as `2026-12-08`, times as `09:00`, on the clock of its place. */
export type LocalWindow = {
	date: string;
	opens: string;
	/** null: it stays open. */
	closes: string | null;
	/** The day on which it closes; null: the one on which it opens. */
	lastDate: string | null;
};

export type ReadWindow =
	| { ok: true; window: Window }
	| { ok: false; at: 'opens' | 'closes'; message: string; instead?: string };

/** Reads a window as it was entered. A time that the clocks skip or repeat is asked about, never guessed. */
export function readLocalWindow({ date, opens, closes, lastDate }: LocalWindow, zone: string): ReadWindow {
	const read = (day: string, time: string, at: 'opens' | 'closes') => {
		const instant = instantFromLocal(day, time, zone);
		if (instant.ok) return instant;
		if (instant.why === 'does_not_exist') {
			const message = `The clocks jump over ${shownTime(time)} on that day. The next time there is ${clockTime(instant.instead, zone)}.`;
			return { ok: false, at, message } as const;
		}
		if (instant.why === 'exists_twice') {
			const message = `The clocks go back that night, so ${shownTime(time)} comes twice.`;
			return { ok: false, at, message, instead: 'Choose a time outside that hour.' } as const;
		}
		const message = 'This date and time can’t be read. Use a date like 2026-12-08 and a time like 09:00.';
		return { ok: false, at, message } as const;
	};
	const first = read(date, opens, 'opens');
	if (!first.ok) return first;
	if (closes === null) return { ok: true, window: { opens: first.at, closes: null } };
	const last = read(lastDate ?? date, closes, 'closes');
	return last.ok ? { ok: true, window: { opens: first.at, closes: last.at } } : last;
}

/** A window as a form shows it; `lastDate` is null where it closes on the day on which it opens. */
export function asLocalWindow({ opens, closes }: Window, zone: string): LocalWindow {
	const date = localDate(opens, zone);
	const last = closes === null ? date : localDate(closes, zone);
	return {
		date,
		opens: localTime(opens, zone),
		closes: closes === null ? null : localTime(closes, zone),
		lastDate: last === date ? null : last
	};
}

/** When the last local day of a window is over; one that closes at midnight sharp does not reach into the next. */
export function lastDayEnds({ opens, closes }: Window, zone: string): number {
	return localMidnightAfter(closes === null ? opens : Math.max(opens, closes - 1), zone);
}

/** Whether a window reaches into more than one local day. */
export function isOverDays(window: Window, zone: string): boolean {
	return lastDayEnds(window, zone) !== localMidnightAfter(window.opens, zone);
}

/** Whether any of a window falls on a local day, `2026-12-08`. */
export function reachesInto(window: Window, day: string, zone: string): boolean {
	return localDate(window.opens, zone) <= day && day <= localDate(lastDayEnds(window, zone) - 1, zone);
}

/** `open until Friday 4 December, 17:00 GMT`. */
export function openUntil(closes: number, zone: string): string {
	return `open until ${longDate(closes, zone)}, ${clockTime(closes, zone)} ${zoneName(closes, zone)}`;
}

/** The day so many after another, both `2026-12-08`. */
export function addDays(day: string, days: number): string {
	return DateTime.fromISO(day).plus({ days }).toISODate()!;
}

/** How many days lie from one to another, both `2026-12-08`. */
export function daysBetween(from: string, to: string): number {
	return Math.round(DateTime.fromISO(to, { zone: 'utc' }).diff(DateTime.fromISO(from, { zone: 'utc' }), 'days').days);
}
