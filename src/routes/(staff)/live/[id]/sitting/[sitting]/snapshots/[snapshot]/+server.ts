import { allowSession, NO_SUCH_THING, problem } from '$lib/server/http';
import { readSnapshot } from '$lib/server/pictures';
import { isOnRoster } from '$lib/server/session';
import type { RequestHandler } from './$types';

/** One picture from a candidate's camera, for whoever supervises them. */
export const GET: RequestHandler = async (event) => {
	const { id, sitting, snapshot } = event.params;
	const allowed = await allowSession(event, id, 'see_session');
	if (!allowed.ok) return allowed.response;
	const { otium } = allowed;
	const isHere = await isOnRoster(otium.db, id, sitting);
	const bytes = isHere ? await readSnapshot(otium, sitting, snapshot) : null;
	if (!bytes) return problem(404, NO_SUCH_THING);
	return new Response(new Uint8Array(bytes), { headers: { 'content-type': 'image/jpeg' } });
};
