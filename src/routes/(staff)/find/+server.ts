import { findAnything } from '$lib/server/finder';
import { route, staff } from '$lib/server/http';

/** People, sessions, papers and acts by any words; each is shown what they may see. */
export const GET = route(staff(), async ({ otium, staff, url }) => ({
	found: await findAnything(otium.db, staff, url.searchParams.get('text') ?? '', otium.now())
}));
