import { writeCalendar } from '$core/formats';
import { lastsUntil } from '$core/time';
import { allowSession, download } from '$lib/server/http';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'see_session');
	if (!allowed.ok) return allowed.response;
	const { session, otium } = allowed;
	const entry = {
		id: session.id,
		title: session.name,
		from: session.window.opens,
		to: lastsUntil(session.rules.timing, session.window),
		place: `${session.room.name}, ${session.site.name}`,
		description: ''
	};
	return download(`${session.name}.ics`, 'text/calendar; charset=utf-8', writeCalendar('Otium', [entry], otium.now()));
};
