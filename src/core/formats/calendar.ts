import ICAL from 'ical.js';
import ical, { ICalCalendarMethod } from 'ical-generator';
import { MINUTE } from '../time';

/** A stretch of somebody's time that is taken, `from` inclusive to `to` exclusive, in epoch milliseconds. */
export type Busy = { from: number; to: number; title: string };
export type ReadCalendar = { ok: true; busy: Busy[]; skipped: string[] } | { ok: false; message: string };

/** A timetable of one event a lesson, repeated for years, stays far below. */
const MOST_BUSY = 5_000;

/**
 * The taken times of an iCalendar file (RFC 5545) between two instants, repetitions and exceptions worked out. Events
 * that are marked as free or cancelled are not taken. Times without a zone are local to `zone`.
 */
export function readCalendar(text: string, zone: string, from: number, to: number): ReadCalendar {
	let calendar: ICAL.Component;
	try {
		calendar = new ICAL.Component(ICAL.parse(text) as never);
	} catch {
		return { ok: false, message: 'This is no calendar file. Export the timetable as iCalendar (.ics) and send that.' };
	}
	for (const one of calendar.getAllSubcomponents('vtimezone')) ICAL.TimezoneService.register(one as never);
	const skipped: string[] = [];
	const busy: Busy[] = [];
	const events = calendar.getAllSubcomponents('vevent').map((component) => new ICAL.Event(component));
	const changed = events.filter((event) => event.isRecurrenceException());
	for (const event of events) {
		const { component } = event;
		if (event.isRecurrenceException() || isFree(component)) continue;
		for (const exception of changed) if (exception.uid === event.uid) event.relateException(exception);
		if (!event.startDate || !event.endDate) {
			skipped.push(`“${event.summary ?? 'an event'}” has no time`);
			continue;
		}
		for (const one of occurrences(event, to, zone)) {
			if (one.to > from && one.from < to && one.to > one.from) busy.push(one);
			if (busy.length > MOST_BUSY)
				return { ok: false, message: `More than ${MOST_BUSY} entries fall into this time. Export a shorter stretch.` };
		}
	}
	return { ok: true, busy: busy.sort((a, b) => a.from - b.from), skipped };
}

function isFree(component: ICAL.Component): boolean {
	return (
		component.getFirstPropertyValue('transp') === 'TRANSPARENT' ||
		component.getFirstPropertyValue('status') === 'CANCELLED'
	);
}

function* occurrences(event: ICAL.Event, until: number, zone: string): Generator<Busy> {
	if (!event.isRecurring()) {
		yield toBusy(event.startDate, event.endDate, event.summary, zone);
		return;
	}
	const iterator = event.iterator();
	for (let i = 0; i < 20_000; i++) {
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
	const wall = Date.UTC(time.year, time.month - 1, time.day, time.hour, time.minute, time.second);
	return fromWall(wall, namedZone(time) ?? zone);
}

function namedZone(time: ICAL.Time): string | null {
	const named = (time as unknown as { timezone?: string }).timezone;
	return isZone(named) ? named : null;
}

function isZone(name: string | undefined): name is string {
	if (!name) return false;
	try {
		new Intl.DateTimeFormat('en', { timeZone: name });
		return true;
	} catch {
		return false;
	}
}

/** The instant of a wall-clock reading; in the hour that comes twice, the first. */
function fromWall(wall: number, zone: string): number {
	const offset = (at: number) => {
		const parts = new Intl.DateTimeFormat('en-US', {
			timeZone: zone,
			hourCycle: 'h23',
			year: 'numeric',
			month: 'numeric',
			day: 'numeric',
			hour: 'numeric',
			minute: 'numeric',
			second: 'numeric'
		}).formatToParts(at);
		const part = (type: string) => Number(parts.find((one) => one.type === type)!.value);
		const shown = Date.UTC(part('year'), part('month') - 1, part('day'), part('hour'), part('minute'), part('second'));
		return shown - at;
	};
	const first = wall - offset(wall);
	return wall - offset(first);
}

/** A session as others' calendars show it. */
export type CalendarEntry = {
	id: string;
	title: string;
	from: number;
	to: number;
	place: string;
	description: string;
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
			start: new Date(entry.from),
			end: new Date(Math.max(entry.to, entry.from + MINUTE)),
			summary: entry.title,
			location: entry.place,
			description: entry.description
		});
	}
	return calendar.toString();
}
