import { inSession, route } from '$lib/server/http';
import { foreseeEnding } from '$lib/server/session';

/** What would become of each if the session ended now. */
export const GET = route(inSession('see_session'), ({ otium, session }) =>
	foreseeEnding(otium.db, session.id, otium.now())
);
