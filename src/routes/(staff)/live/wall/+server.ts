import { may } from '$core/access';
import { eventStream, problem, SIGNED_OUT } from '$lib/server/http';
import { findSessions, placeOf } from '$lib/server/session';
import type { RequestHandler } from './$types';

const MOST_ROOMS = 40;

/** One line for all the rooms that are asked for and may be seen. */
export const GET: RequestHandler = async ({ url, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const asked = (url.searchParams.get('rooms') ?? '').split(',').filter(Boolean).slice(0, MOST_ROOMS);
	const sessions = await findSessions(otium.db, (query) => query.whereIn('session.id', asked));
	const seen = sessions.filter((session) => may(staff, 'see_session', placeOf(session)));
	return eventStream(await otium.hub.watchRooms(seen.map((session) => session.id)));
};
