import { json } from '@sveltejs/kit';
import { allowSession } from '$lib/server/http';
import { foreseeEnding } from '$lib/server/session';
import type { RequestHandler } from './$types';

/** What would become of each if the session ended now. */
export const GET: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'see_session');
	if (!allowed.ok) return allowed.response;
	return json(await foreseeEnding(allowed.otium.db, allowed.session.id, allowed.otium.now()));
};
