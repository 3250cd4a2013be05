import { fail } from '$core/problem';
import { inSession, route } from '$lib/server/http';
import { readSnapshot } from '$lib/server/pictures';
import { isOnRoster } from '$lib/server/session';

/** One picture from a candidate's camera, for whoever supervises them. */
export const GET = route(inSession('see_session'), async ({ otium, session, params: { sitting, snapshot } }) => {
	const isHere = await isOnRoster(otium.db, session.id, sitting);
	const bytes = isHere ? await readSnapshot(otium, sitting, snapshot) : null;
	if (!bytes) fail('not_found');
	return new Response(new Uint8Array(bytes), { headers: { 'content-type': 'image/jpeg' } });
});
