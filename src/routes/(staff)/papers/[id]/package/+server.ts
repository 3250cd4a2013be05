import { download, route, staff } from '$lib/server/http';
import { draftFor, packageOf } from '$lib/server/paper';

/** The paper as it is being written, as a QTI package; 2.1 where it is asked for, else 3.0. */
export const GET = route(staff('write_papers'), async ({ otium, staff, params, url }) => {
	const { content, title } = await draftFor(otium.db, staff, params.id);
	const version = url.searchParams.get('version') === '2.1' ? '2.1' : '3.0';
	return download(`${title} QTI ${version}.zip`, 'application/zip', await packageOf(otium, content, version));
});
