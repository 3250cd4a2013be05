import { writeCalendar } from '$core/formats';
import { plainName } from '$core/names';
import { fail } from '$core/problem';
import { lastsUntil } from '$core/time';
import { download, orRefuse, personFor, route, staff } from '$lib/server/http';
import { importTimetable } from '$lib/server/people';
import { findSessions } from '$lib/server/session';

const MOST_BYTES = 2 * 1024 * 1024;

/** One candidate's timetable, as a calendar file. */
export const POST = route(staff('prepare'), async ({ request, params, otium, staff }) => {
	const { person, by } = await personFor(otium, staff, params.id);
	const text = await request.text();
	if (text.length > MOST_BYTES) fail('timetable_too_large');
	const done = orRefuse(await importTimetable(otium, by, [params.id], text, person.site.zone), 'not_taken');
	return { entries: done.busy.length, skipped: done.skipped };
});

/** The candidate's sessions as a calendar file. */
export const GET = route(staff('prepare'), async ({ params, otium, staff }) => {
	const { person } = await personFor(otium, staff, params.id);
	const sessions = await findSessions(otium.db, (query) =>
		query.whereIn(
			'session.id',
			person.sittings.map((sitting) => sitting.sessionId)
		)
	);
	const entries = sessions.map((session) => ({
		id: session.id,
		title: session.name,
		from: session.window.opens,
		to: lastsUntil(session.rules.timing, session.window),
		place: `${session.room.name}, ${person.site.name}`,
		description: ''
	}));
	return download(
		`${plainName(person)}.ics`,
		'text/calendar; charset=utf-8',
		writeCalendar('Otium', entries, otium.now())
	);
});
