import { inSession, route } from '$lib/server/http';
import { scriptOf } from '$lib/server/session';

/** How this room is run, what is read aloud, and what helps when something goes wrong. */
export const GET = route(inSession('see_session'), async ({ otium, session }) => scriptOf(otium.db, session));
