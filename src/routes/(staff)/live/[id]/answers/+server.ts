import { inSession, route } from '$lib/server/http';
import { drawGrid } from '$lib/server/live';

/** The answers grid: of everyone, or of those whose ids are given. */
export const GET = route(inSession('see_session'), async ({ otium, session, url }) => {
	const only = url.searchParams.get('only')?.split(',').slice(0, 500);
	return { rows: await drawGrid(otium.db, session.id, only) };
});
