import { json } from '@sveltejs/kit';
import { allowSession } from '$lib/server/http';
import { drawGrid } from '$lib/server/live';
import type { RequestHandler } from './$types';

/** The answers grid: of everyone, or of those whose ids are given. */
export const GET: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'see_session');
	if (!allowed.ok) return allowed.response;
	const only = event.url.searchParams.get('only')?.split(',').slice(0, 500);
	return json({ rows: await drawGrid(allowed.otium.db, allowed.session.id, only) });
};
