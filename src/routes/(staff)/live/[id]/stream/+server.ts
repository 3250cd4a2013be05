import { fail } from '$core/problem';
import { eventStream, inSession, route } from '$lib/server/http';

export const GET = route(inSession('see_session'), async ({ otium, session, request, url }) => {
	const last = request.headers.get('last-event-id') ?? url.searchParams.get('since');
	const stream = await otium.hub.watchRoom(session.id, last);
	if (!stream) fail('not_found');
	return eventStream(stream);
});
