import { inSession, route } from '$lib/server/http';
import { findToday } from '$lib/server/live';

/** Whoever sits anything here today, for the proctor who stands beside somebody at the door. */
export const GET = route(inSession('see_session'), async ({ otium, session, url }) => {
	const text = (url.searchParams.get('text') ?? '').slice(0, 120);
	return { people: await findToday(otium.db, session, text, otium.now()) };
});
