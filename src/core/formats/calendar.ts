import ICAL from 'ical.js';
import ical, { ICalCalendarMethod } from 'ical-generator';
import { DateTime, IANAZone } from 'luxon';
import { MINUTE } from '../time';

/** A stretch of somebody's time that is taken, `from` inclusive to `to` exclusive, in epoch milliseconds. */
export type Busy = { from: number; to: number; title: string };
export type ReadCalendar = { ok: true; busy: Busy[]; skipped: string[] } | { ok: false; message: string };

/** A timetable of one event a lesson, repeated for years, stays far below. */
const MOST_BUSY = 5_000;
/** Repetitions looked at in all of a file, those before `from` and those left out included. */
const MOST_STEPS = 100_000;
/** No lesson comes back so soon; a year of seconds is thirty million of them. */
const TOO_OFTEN = ['SECONDLY', 'MINUTELY', 'HOURLY'];

const NO_CALENDAR = {
	ok: false,
	message: 'This is not a calendar file. Export the timetable as iCalendar (.ics) and send that.'
} as const;

/**
 * The taken times of an iCalendar file (RFC 5545) between two instants, repetitions and exceptions worked out. Events
 * that are marked as free or cancelled are not taken. Times without a zone are local to `zone`.
 */
export function readCalendar(text: string, zone: string, from: number, to: number): ReadCalendar {
	let calendar: ICAL.Component;
	try {
		calendar = new ICAL.Component(ICAL.parse(text) as never);
	} catch {
		return NO_CALENDAR;
	}
	if (calendar.name !== 'vcalendar') return NO_CALENDAR;
	// A file's own zones are known while it is read and not a moment longer: the next file may name the same zone and mean it.
	for (const one of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(one as never);
	try {
		return busyOf(calendar, zone, from, to);
	} finally {
		ICAL.TimezoneService.reset();
	}
}

function busyOf(calendar: ICAL.Component, zone: string, from: number, to: number): ReadCalendar {
	const skipped: string[] = [];
	const busy: Busy[] = [];
	const events = calendar.getAllSubcomponents('vevent').map((component) => new ICAL.Event(component));
	const changed = events.filter((event) => event.isRecurrenceException());
	const steps = { left: MOST_STEPS };
	for (const event of events) {
		const { component } = event;
		if (
			component
				.getAllProperties('rrule')
				.some((rule) => TOO_OFTEN.includes(String((rule.getFirstValue() as ICAL.Recur | null)?.freq)))
		)
			return {
				ok: false,
				message: `“${event.summary ?? 'an event'}” repeats every hour or more often. Leave it out of the file.`
			};
		if (event.isRecurrenceException() || isFree(component)) continue;
		for (const exception of changed) if (exception.uid === event.uid) event.relateException(exception);
		if (!event.startDate || !event.endDate) {
			skipped.push(`“${event.summary ?? 'an event'}” has no time`);
			continue;
		}
		for (const one of occurrences(event, to, zone, steps)) {
			if (one.to > from && one.from < to && one.to > one.from) busy.push(one);
			if (busy.length > MOST_BUSY)
				return { ok: false, message: `More than ${MOST_BUSY} entries fall in this period. Export a shorter period.` };
		}
	}
	if (steps.left < 0)
		return { ok: false, message: 'Its events repeat too often or began too long ago. Export a shorter period.' };
	return { ok: true, busy: busy.sort((a, b) => a.from - b.from), skipped };
}

function isFree(component: ICAL.Component): boolean {
	return (
		component.getFirstPropertyValue('transp') === 'TRANSPARENT' ||
		component.getFirstPropertyValue('status') === 'CANCELLED'
	);
}

function* occurrences(event: ICAL.Event, until: number, zone: string, steps: { left: number }): Generator<Busy> {
	if (!event.isRecurring()) {
		yield toBusy(event.startDate, event.endDate, event.summary, zone);
		return;
	}
	const iterator = event.iterator();
	while (steps.left-- > 0) {
		const next = iterator.next();
		if (!next || instantOf(next, zone) >= until) return;
		const { startDate, endDate, item } = event.getOccurrenceDetails(next);
		if (!isFree(item.component)) yield toBusy(startDate, endDate, item.summary, zone);
	}
}

function toBusy(start: ICAL.Time, end: ICAL.Time, title: string | null, zone: string): Busy {
	// An end worked out from a duration has no zone of its own: it is the start's.
	return { from: instantOf(start, zone), to: instantOf(end, namedZone(start) ?? zone), title: title ?? 'Taken' };
}

/** A zone that the file does not define itself is looked up by its IANA name. */
function instantOf(time: ICAL.Time, zone: string): number {
	const own = time.zone?.tzid;
	if (own && own !== 'floating' && ICAL.TimezoneService.has(own)) return time.toJSDate().getTime();
	return fromWall(time, namedZone(time) ?? zone);
}

function namedZone(time: ICAL.Time): string | null {
	const named = (time as unknown as { timezone?: string }).timezone;
	return isZone(named) ? named : null;
}

function isZone(name: string | undefined): name is string {
	return name !== undefined && IANAZone.isValidZone(name);
}

/** The instant of a wall-clock reading; in the hour that comes twice, the first. */
function fromWall(time: ICAL.Time, zone: string): number {
	const { year, month, day, hour, minute, second } = time;
	const wall = DateTime.fromObject({ year, month, day, hour, minute, second }, { zone });
	return Math.min(...wall.getPossibleOffsets().map((possible) => possible.toMillis()));
}

/** A session as others' calendars show it. */
export type CalendarEntry = {
	id: string;
	title: string;
	from: number;
	to: number;
	place: string;
	description: string;
	/** Raised with every change that is sent, so that a calendar takes the new one for the old (RFC 5546, 2.1.4). */
	sequence?: number;
};

/** An iCalendar file of sessions; times in UTC, which every reader turns into its own. */
export function writeCalendar(name: string, entries: CalendarEntry[], now: number): string {
	const calendar = ical({
		name,
		prodId: { company: 'otium', product: 'otium', language: 'EN' },
		method: ICalCalendarMethod.PUBLISH
	});
	for (const entry of entries) {
		calendar.createEvent({
			id: `${entry.id}@otium`,
			stamp: new Date(now),
			sequence: entry.sequence ?? 0,
			start: new Date(entry.from),
			end: new Date(Math.max(entry.to, entry.from + MINUTE)),
			summary: entry.title,
			location: entry.place,
			description: entry.description
		});
	}
	return calendar.toString();
}
