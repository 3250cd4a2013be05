import { DateTime } from 'luxon';

const MONTHS = ['jan', 'feb', 'mar', 'apr', 'may', 'jun', 'jul', 'aug', 'sep', 'oct', 'nov', 'dec'];
const DAYS = ['mon', 'tue', 'wed', 'thu', 'fri', 'sat', 'sun'];
/** Two digits of a year are this century's. */
const CENTURY = 2_000;

/**
 * A day as somebody types it, as `2026-12-08`: that, `8/12/2026` (the day first, as in Britain), `8.12.`, `8 Dec`, `Tuesday
 * 8 December 2026`, `today`, `tomorrow`, or a weekday, which is the next such day.
 * @param today the local day, `yyyy-MM-dd`; a day without a year is the next such day from a month ago on
 * @returns null: it is none
 */
export function readDate(text: string, today: string): string | null {
	const words = text.trim().toLowerCase().replace(/,/g, ' ').replace(/\s+/g, ' ');
	const base = DateTime.fromISO(today);
	if (words === 'today') return today;
	if (words === 'tomorrow') return base.plus({ days: 1 }).toISODate();
	const weekday = DAYS.findIndex((day) => words.length >= 3 && words.startsWith(day));
	if (weekday >= 0 && /^[a-z]+$/.test(words))
		return base.plus({ days: (weekday + 1 - base.weekday + 7) % 7 || 7 }).toISODate();
	const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(words);
	if (iso) return day(Number(iso[1]), Number(iso[2]), Number(iso[3]));
	const numbers = /^(\d{1,2})[/. -](\d{1,2})(?:[/. -](\d{4}|\d{2})?)?$/.exec(words);
	if (numbers) return near(numbers[1], Number(numbers[2]), numbers[3], base);
	const named = /^(?:[a-z]+ )?(\d{1,2})(?:st|nd|rd|th)? ([a-z]{3,})\.?(?: (\d{4}|\d{2}))?$/.exec(words);
	const month = named ? MONTHS.indexOf(named[2].slice(0, 3)) + 1 : 0;
	return named && month > 0 ? near(named[1], month, named[3], base) : null;
}

function near(dayText: string, month: number, year: string | undefined, base: DateTime): string | null {
	if (year) return day(year.length === 2 ? CENTURY + Number(year) : Number(year), month, Number(dayText));
	const soonest = day(base.year, month, Number(dayText));
	return soonest !== null && soonest < base.minus({ months: 1 }).toISODate()!
		? day(base.year + 1, month, Number(dayText))
		: soonest;
}

function day(year: number, month: number, dayOfMonth: number): string | null {
	const read = DateTime.fromObject({ year, month, day: dayOfMonth });
	return read.isValid ? read.toISODate() : null;
}

/** `Tue 8 Dec 2026`: how a day stands in a field. */
export function fieldDate(date: string): string {
	const read = DateTime.fromISO(date);
	return read.isValid ? read.setLocale('en-GB').toFormat('ccc d LLL yyyy').replace('Sept', 'Sep') : date;
}

/**
 * A time of day as somebody types it, as `09:30`: that, `9:30`, `9.30`, `930`, `9`, `9 am`, `9:30 pm`.
 * @returns null: it is none
 */
export function readTime(text: string): string | null {
	const read = /^(\d{1,2})(?:[:.h ]?(\d{2}))?\s*(am|pm|a\.m\.|p\.m\.)?$/.exec(text.trim().toLowerCase());
	if (!read) return null;
	const half = read[3]?.[0];
	const [hours, minutes] = [Number(read[1]), Number(read[2] ?? 0)];
	if (half && (hours < 1 || hours > 12)) return null;
	const hour = half ? (hours % 12) + (half === 'p' ? 12 : 0) : hours;
	if (hour > 23 || minutes > 59) return null;
	return `${String(hour).padStart(2, '0')}:${String(minutes).padStart(2, '0')}`;
}
