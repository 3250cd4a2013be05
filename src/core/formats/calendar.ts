import ICAL from 'ical.js';
import ical, { ICalCalendarMethod } from 'ical-generator';
import { DateTime, IANAZone } from 'luxon';
import { findIana } from 'windows-iana';
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
 * that are marked as free or cancelled are not taken. Times without a zone are local to `zone`. What can't be read of an
 * event is told with its name, and the others are read.
 */
export function readCalendar(text: string, zone: string, from: number, to: number): ReadCalendar {
	const { blocks, isCalendar } = partsOf(text);
	if (!isCalendar) return NO_CALENDAR;
	try {
		// A file's own zones are known while it is read and not a moment longer: the next file may name the same zone and mean it.
		for (const block of blocks.filter(({ name }) => name === 'VTIMEZONE')) {
			const read = componentOf(block);
			if (read) ICAL.TimezoneService.register(read as never);
		}
		const skipped: string[] = [];
		const events = blocks.flatMap((block) => {
			if (block.name !== 'VEVENT') return [];
			const read = eventOf(block);
			if (typeof read !== 'string') return [read];
			skipped.push(`“${titleOf(block.lines)}” ${read}`);
			return [];
		});
		return busyOf(events, skipped, zone, from, to);
	} finally {
		ICAL.TimezoneService.reset();
	}
}

type Block = { name: string; lines: string[] };

/** The zones and events of all calendars in a file, each by itself: one that is damaged takes no other with it. */
function partsOf(text: string): { blocks: Block[]; isCalendar: boolean } {
	const lines = text
		.replace(/^\uFEFF/, '')
		.replace(/\r\n?/g, '\n')
		.replace(/\n[ \t]/g, '')
		.split('\n');
	const blocks: Block[] = [];
	let isCalendar = false;
	let block: Block | null = null;
	let [depth, opened] = [0, 0];
	for (const line of lines) {
		const [, what, name] = /^(BEGIN|END):(\w+)\s*$/i.exec(line) ?? [];
		if (what && name.toUpperCase() === 'VCALENDAR') {
			opened += what.toUpperCase() === 'BEGIN' ? 1 : -1;
			if (opened === 0) isCalendar = true;
			continue;
		}
		if (block === null) {
			if (what?.toUpperCase() === 'BEGIN' && /^V(EVENT|TIMEZONE)$/i.test(name) && opened === 1) {
				block = { name: name.toUpperCase(), lines: [line] };
				depth = 1;
			}
			continue;
		}
		block.lines.push(line);
		if (what) depth += what.toUpperCase() === 'BEGIN' ? 1 : -1;
		if (depth > 0) continue;
		blocks.push(block);
		block = null;
	}
	return { blocks, isCalendar };
}

function componentOf({ name, lines }: Block): ICAL.Component | null {
	try {
		const text = ['BEGIN:VCALENDAR', ...lines, 'END:VCALENDAR'].join('\r\n');
		return new ICAL.Component(ICAL.parse(text) as never).getFirstSubcomponent(name.toLowerCase());
	} catch {
		return null;
	}
}

/** An event, or what is wrong with it. */
function eventOf(block: Block): ICAL.Event | string {
	const fault = block.lines.map(faultOfLine).find((one) => one !== null);
	if (fault) return fault;
	const component = componentOf(block);
	if (!component) return 'can’t be read';
	try {
		const event = new ICAL.Event(component);
		// What is malformed shows when it is asked for.
		void [event.startDate?.toJSDate(), event.endDate?.toJSDate(), event.summary];
		return event;
	} catch {
		return 'can’t be read';
	}
}

function titleOf(lines: string[]): string {
	return (
		lines
			.find((line) => /^SUMMARY[;:]/i.test(line))
			?.replace(/^[^:]*:/, '')
			.slice(0, 80) ?? 'an event'
	);
}

/** What is wrong with a line that says when; null: nothing is. A day that no month has is not another day. */
function faultOfLine(line: string): string | null {
	const [, name, value] = /^(DTSTART|DTEND|RECURRENCE-ID|DURATION)(?:;[^:]*)?:(.*?)\s*$/i.exec(line) ?? [];
	if (name === undefined) return null;
	if (name.toUpperCase() === 'DURATION')
		return /^[+-]?P(?:\d+W|(?:\d+D)?(?:T(?:\d+H)?(?:\d+M)?(?:\d+S)?)?)$/.test(value)
			? null
			: `has a length that can’t be read: ${value}`;
	const [, year, month, day, , hour = '0', minute = '0'] =
		/^(\d{4})(\d{2})(\d{2})(T(\d{2})(\d{2})(\d{2})Z?)?$/.exec(value) ?? [];
	if (year === undefined) return `has a time that can’t be read: ${value}`;
	const { isValid } = DateTime.fromObject({
		year: +year,
		month: +month,
		day: +day,
		hour: Math.min(+hour, 23),
		minute: +minute
	});
	return isValid && +hour < 25 ? null : `is on a day or at a time that does not exist: ${value}`;
}

function busyOf(events: ICAL.Event[], skipped: string[], zone: string, from: number, to: number): ReadCalendar {
	const busy: Busy[] = [];
	const masters = new Set(events.filter((event) => !event.isRecurrenceException()).map(({ uid }) => uid));
	const changed = events.filter((event) => event.isRecurrenceException() && masters.has(event.uid));
	const steps = { left: MOST_STEPS };
	const strange = new Set<string>();
	for (const event of events) {
		const { component } = event;
		const title = event.summary ?? 'an event';
		if (
			component
				.getAllProperties('rrule')
				.some((rule) => TOO_OFTEN.includes(String((rule.getFirstValue() as ICAL.Recur | null)?.freq)))
		)
			return { ok: false, message: `“${title}” repeats every hour or more often. Leave it out of the file.` };
		if (changed.includes(event) || isFree(component)) continue;
		if (!event.startDate || !event.endDate) {
			skipped.push(`“${title}” has no time`);
			continue;
		}
		for (const exception of changed) if (exception.uid === event.uid) event.relateException(exception);
		const named = unknownZone(event.startDate);
		if (named) strange.add(named);
		try {
			for (const one of occurrences(event, to, zone, steps)) {
				if (one.to > from && one.from < to && one.to > one.from) busy.push(one);
				if (busy.length > MOST_BUSY)
					return { ok: false, message: `More than ${MOST_BUSY} entries fall in this period. Export a shorter period.` };
			}
		} catch {
			skipped.push(`“${title}” can’t be read`);
		}
	}
	if (steps.left < 0)
		return { ok: false, message: 'Its events repeat too often or began too long ago. Export a shorter period.' };
	if (events.length === 0)
		return {
			ok: false,
			message:
				skipped.length > 0
					? `None of its events can be read: ${skipped.slice(0, 3).join('; ')}.`
					: 'There is no event in this file. Export the lessons as events, and send that.'
		};
	for (const name of strange) skipped.push(`the time zone “${name}” is not known, and was read as ${zone}`);
	return { ok: true, busy: busy.sort((a, b) => a.from - b.from), skipped };
}

function isFree(component: ICAL.Component): boolean {
	return (
		component.getFirstPropertyValue('transp') === 'TRANSPARENT' ||
		component.getFirstPropertyValue('status') === 'CANCELLED'
	);
}

function* occurrences(event: ICAL.Event, until: number, zone: string, steps: { left: number }): Generator<Busy> {
	const { component } = event;
	const lastsMs = Math.max(0, event.duration.toSeconds() * 1_000);
	const left = timesOf(component, 'exdate');
	const isLeftOut = (start: ICAL.Time) =>
		left.some((one) =>
			one.isDate
				? one.year === start.year && one.month === start.month && one.day === start.day
				: instantOf(one, zone) === instantOf(start, zone)
		);
	if (!component.hasProperty('rrule')) {
		// Further dates stand beside the first, without a rule.
		const rest = timesOf(component, 'rdate');
		if (!isLeftOut(event.startDate)) yield toBusy(event.startDate, event.endDate, event.summary, zone, lastsMs);
		for (const one of rest)
			if (!isLeftOut(one) && instantOf(one, zone) !== instantOf(event.startDate, zone)) {
				const from = instantOf(one, zone);
				yield { from, to: from + lastsMs, title: event.summary ?? 'Taken' };
			}
		return;
	}
	const iterator = event.iterator();
	while (steps.left-- > 0) {
		const next = iterator.next();
		if (!next || instantOf(next, zone) >= until) return;
		if (isLeftOut(next)) continue;
		const { startDate, endDate, item } = event.getOccurrenceDetails(next);
		if (!isFree(item.component)) yield toBusy(startDate, endDate, item.summary, zone, lastsMs);
	}
}

/** The times that a property lists, whichever zone each is in. */
function timesOf(component: ICAL.Component, name: string): ICAL.Time[] {
	return component
		.getAllProperties(name)
		.flatMap((property) => property.getValues())
		.map((value) => (value instanceof ICAL.Period ? value.start : value))
		.filter((value): value is ICAL.Time => value instanceof ICAL.Time);
}

function toBusy(start: ICAL.Time, end: ICAL.Time, title: string | null, zone: string, lastsMs: number): Busy {
	// An end worked out from a duration has no zone of its own: it is the start's.
	const from = instantOf(start, zone);
	const to = instantOf(end, namedZone(start) ?? zone);
	// A lesson in the hour that the clocks jump over takes as long as it lasts.
	return { from, to: to > from ? to : from + lastsMs, title: title ?? 'Taken' };
}

/** A zone that the file does not define itself is looked up by its IANA name, or by the one that other systems give it. */
function instantOf(time: ICAL.Time, zone: string): number {
	const own = time.zone?.tzid;
	if (own && own !== 'floating' && ICAL.TimezoneService.has(own)) return time.toJSDate().getTime();
	return fromWall(time, namedZone(time) ?? zone);
}

const nameOf = (time: ICAL.Time) => (time as unknown as { timezone?: string }).timezone;

function namedZone(time: ICAL.Time): string | null {
	const named = nameOf(time);
	if (isZone(named)) return named;
	// The table of the Unicode CLDR.
	return (named && findIana(named)[0]) || null;
}

/** The name of a zone that nobody knows; null: it is known, or none is named. */
function unknownZone(time: ICAL.Time): string | null {
	const named = nameOf(time);
	const isKnown = !named || named === 'Z' || ICAL.TimezoneService.has(named) || namedZone(time) !== null;
	return isKnown ? null : named;
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
