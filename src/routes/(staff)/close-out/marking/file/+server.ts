import { fail } from '$core/problem';
import { readHanded } from '$lib/server/handed';
import { route, staff } from '$lib/server/http';
import { sittingOfKey } from '$lib/server/marking';

/** A photo or PDF of working on paper, for whoever marks it: by the answer's own key, without a word about whose it is. */
export const GET = route(staff('mark'), async ({ otium, staff, url }) => {
	const named = (name: string) => url.searchParams.get(name) ?? '';
	const of = { administrationId: named('administration'), paperId: named('paper'), questionId: named('question') };
	if (!(await otium.db('paper').where({ id: of.paperId }).first('id'))) fail('not_found');
	const sittingId = await sittingOfKey(otium.db, of, named('key'), staff.id);
	const file = sittingId === null ? null : await readHanded(otium, sittingId, named('file'));
	if (!file) fail('not_found');
	return new Response(file.bytes as BodyInit, {
		headers: { 'content-type': file.type, 'cache-control': 'private, no-store', 'content-disposition': 'inline' }
	});
});
