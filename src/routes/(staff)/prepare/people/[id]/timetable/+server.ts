import { json } from '@sveltejs/kit';
import { writeCalendar } from '$core/formats';
import { lastsUntil } from '$core/time';
import { download, NO_SUCH_THING, NOT_YOURS, problem, SIGNED_OUT } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { findPerson, importTimetable } from '$lib/server/people';
import { coordinatesSite, findSessions } from '$lib/server/session';
import type { RequestHandler } from './$types';

const MOST_BYTES = 2 * 1024 * 1024;

/** One candidate's timetable, as a calendar file. */
export const POST: RequestHandler = async ({ request, params, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const person = await findPerson(otium.db, params.id, otium.now());
	if (!person) return problem(404, NO_SUCH_THING);
	if (!coordinatesSite(staff, person.site.id)) return problem(403, NOT_YOURS);
	const text = await request.text();
	if (text.length > MOST_BYTES)
		return problem(413, {
			code: 'too_large',
			message: 'A timetable of more than 2 MB.',
			instead: 'Export a shorter stretch.'
		});
	const done = await importTimetable(otium, actorAt(staff, person.site.id), [params.id], text, person.site.zone);
	return done.ok
		? json({ entries: done.busy.length, skipped: done.skipped })
		: problem(422, { code: 'refused', message: done.message });
};

/** The candidate's sessions as a calendar file. */
export const GET: RequestHandler = async ({ params, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const person = await findPerson(otium.db, params.id, otium.now());
	if (!person) return problem(404, NO_SUCH_THING);
	if (!coordinatesSite(staff, person.site.id)) return problem(403, NOT_YOURS);
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
		`${person.given} ${person.family}.ics`,
		'text/calendar; charset=utf-8',
		writeCalendar('Otium', entries, otium.now())
	);
};
