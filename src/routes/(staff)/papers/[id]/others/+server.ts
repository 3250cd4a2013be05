import { route, staff } from '$lib/server/http';
import { draftFor, findQuestions } from '$lib/server/paper';

/** Questions of other papers, to be taken into this one. */
export const GET = route(staff('write_papers'), async ({ otium, staff, params, url }) => {
	await draftFor(otium.db, staff, params.id);
	const text = (url.searchParams.get('text') ?? '').slice(0, 200);
	return { questions: await findQuestions(otium.db, staff, text, params.id) };
});
