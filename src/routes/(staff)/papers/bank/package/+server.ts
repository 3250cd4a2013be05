import { AUDIENCES, writesAt } from '$core/bank';
import { fail } from '$core/problem';
import { AskSchema, writerOf } from '$lib/server/bank';
import { download, route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { bankFile, foreseeBankFile, MOST_DOCUMENT_BYTES, takeBankFile } from '$lib/server/paper';

/** What is asked of the bank in the address, as one QTI package. */
export const GET = route(staff('write_papers'), async ({ otium, staff, url }) => {
	const ask = AskSchema.safeParse(Object.fromEntries([...url.searchParams].filter(([, value]) => value !== '')));
	if (!ask.success) fail('malformed');
	return download('Questions QTI 3.0.zip', 'application/zip', await bankFile(otium, staff, ask.data));
});

/** A QTI package of questions: told what it would bring, and with `audience` taken into the bank for the site `site`. */
export const POST = route(staff('write_papers'), async ({ otium, staff, url, request }) => {
	const bytes = new Uint8Array(await request.arrayBuffer());
	if (bytes.length > MOST_DOCUMENT_BYTES) fail('too_large');
	const audience = AUDIENCES.find((one) => one === url.searchParams.get('audience'));
	if (!audience) return foreseeBankFile(otium, staff, bytes);
	const siteId = url.searchParams.get('site') || null;
	if (!writesAt(siteId, writerOf(staff))) fail('not_found');
	return takeBankFile(otium, staff, actorAt(staff, siteId ?? ''), bytes, { siteId, audience });
});
