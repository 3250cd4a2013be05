import { foreseeGrant, GrantAsked, readGrant } from '$lib/server/grants';
import { route, staff } from '$lib/server/http';

/** What the grant would do, before it is given. */
export const POST = route(staff('grant'), GrantAsked, async ({ otium, staff, body }) => {
	const { grant } = await readGrant(otium, staff, body);
	return foreseeGrant(otium.db, grant, otium.now());
});
