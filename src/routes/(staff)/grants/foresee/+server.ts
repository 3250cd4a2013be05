import { foreseeGrants, GrantAsked, readGrants } from '$lib/server/grants';
import { LARGE, route, staff } from '$lib/server/http';

/** What the grants would do, before they are given; with one person also their day and the windows that do. */
export const POST = route(staff('grant'), { schema: GrantAsked, mostBytes: LARGE }, async ({ otium, staff, body }) => {
	const read = await readGrants(otium, staff, body);
	const focus = read.length === 1 ? read[0].one.sitting.id : null;
	return foreseeGrants(
		otium.db,
		read.map((one) => one.grant),
		focus,
		otium.now()
	);
});
