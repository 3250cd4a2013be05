import { inSession, route } from '$lib/server/http';
import { drawCourse, drawResponseTimes } from '$lib/server/live';

/** The room minute by minute so far, and how long each question has taken: `{ points, times }`. */
export const GET = route(inSession('see_session'), async ({ otium, session }) => ({
	points: await drawCourse(otium.db, session.id, otium.now()),
	times: await drawResponseTimes(otium, session)
}));
