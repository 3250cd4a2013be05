import { allowSession, eventStream, NO_SUCH_THING, problem } from '$lib/server/http';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'see_session');
	if (!allowed.ok) return allowed.response;
	const last = event.request.headers.get('last-event-id') ?? event.url.searchParams.get('since');
	const stream = await allowed.otium.hub.watchRoom(allowed.session.id, last);
	return stream ? eventStream(stream) : problem(404, NO_SUCH_THING);
};
