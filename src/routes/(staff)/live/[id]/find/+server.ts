import { json } from '@sveltejs/kit';
import { allowSession } from '$lib/server/http';
import { findToday } from '$lib/server/live';
import type { RequestHandler } from './$types';

/** Whoever sits anything here today, for the proctor who stands beside somebody at the door. */
export const GET: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'see_session');
	if (!allowed.ok) return allowed.response;
	const text = (event.url.searchParams.get('text') ?? '').slice(0, 120);
	return json({ people: await findToday(allowed.otium.db, allowed.session, text) });
};
