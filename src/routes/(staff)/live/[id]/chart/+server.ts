import { json } from '@sveltejs/kit';
import { allowSession } from '$lib/server/http';
import { drawCourse, drawResponseTimes } from '$lib/server/live';
import type { RequestHandler } from './$types';

/** The room minute by minute so far, and how long each question has taken: `{ points, times }`. */
export const GET: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'see_session');
	if (!allowed.ok) return allowed.response;
	const { otium, session } = allowed;
	return json({
		points: await drawCourse(otium.db, session.id, otium.now()),
		times: await drawResponseTimes(otium, session)
	});
};
