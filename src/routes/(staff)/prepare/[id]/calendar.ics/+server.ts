import { writeCalendar } from '$core/formats';
import { lastsUntil } from '$core/time';
import { download, inSession, route } from '$lib/server/http';

export const GET = route(inSession('see_session'), ({ session, otium }) => {
	const entry = {
		id: session.id,
		title: session.name,
		from: session.window.opens,
		to: lastsUntil(session.rules.timing, session.window),
		place: `${session.room.name}, ${session.site.name}`,
		description: ''
	};
	return download(`${session.name}.ics`, 'text/calendar; charset=utf-8', writeCalendar('Otium', [entry], otium.now()));
});
