import { fail } from '$core/problem';
import { route, staff } from '$lib/server/http';
import { draftFor, paperVersion } from '$lib/server/paper';

/** The version that this one goes on from, to compare the two. */
export const GET = route(staff('write_papers'), async ({ otium, staff, params }) => {
	const { basedOn } = await draftFor(otium.db, staff, params.id);
	if (!basedOn) fail('not_found');
	return { version: basedOn.version, content: (await paperVersion(otium.db, basedOn.id)).content };
});
