import { fail } from '$core/problem';
import { eventStream, inSession, route } from '$lib/server/http';
import { heldBy } from '$lib/server/lines';

export const GET = route(inSession('see_session'), async ({ otium, staff, session, request, url, locals }) => {
	const last = request.headers.get('last-event-id') ?? url.searchParams.get('since');
	const holders = [heldBy.staff(staff.id), heldBy.signIn(locals.signIn!)];
	const stream = await otium.lines.hold(holders, (hold) => otium.hub.watchRoom(session.id, last, hold));
	if (!stream) fail('not_found');
	return eventStream(stream);
});
