import { writeCalendar } from '$core/formats';
import { allowSession, download } from '$lib/server/http';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'see_session');
	if (!allowed.ok) return allowed.response;
	const { session, otium } = allowed;
	const { opens, closes } = session.window;
	const entry = {
		id: session.id,
		title: session.name,
		from: opens,
		to: closes ?? opens + (session.rules.timing.limitMinutes ?? 60) * 60_000,
		place: `${session.room.name}, ${session.site.name}`,
		description: ''
	};
	return download(`${session.name}.ics`, 'text/calendar; charset=utf-8', writeCalendar('Otium', [entry], otium.now()));
};
