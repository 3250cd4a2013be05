import { download, route, staff } from '$lib/server/http';
import { draftFor, paperCsv } from '$lib/server/paper';

/** The paper's questions with their keys as a table. */
export const GET = route(staff('write_papers'), async ({ otium, staff, params }) => {
	const { content, title } = await draftFor(otium.db, staff, params.id);
	return download(`${title}.csv`, 'text/csv; charset=utf-8', paperCsv(content));
});
