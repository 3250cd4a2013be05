import { may } from '$core/access';
import { eventStream, route, staff } from '$lib/server/http';
import { heldBy } from '$lib/server/lines';
import { findSessions, placeOf } from '$lib/server/session';

const MOST_ROOMS = 40;

/** One line for all the rooms that are asked for and may be seen. */
export const GET = route(staff('see_session'), async ({ url, otium, staff, locals }) => {
	const asked = (url.searchParams.get('rooms') ?? '').split(',').filter(Boolean).slice(0, MOST_ROOMS);
	const sessions = await findSessions(otium.db, (query) => query.whereIn('session.id', asked));
	const seen = sessions.filter((session) => may(staff, 'see_session', placeOf(session)));
	const holders = [heldBy.staff(staff.id), heldBy.signIn(locals.signIn!)];
	const ids = seen.map((session) => session.id);
	const stream = await otium.lines.hold(holders, (hold) => otium.hub.watchRooms(ids, hold));
	return eventStream(stream!);
});
