import { fail } from '$core/problem';
import { route, staff } from '$lib/server/http';
import { draftFor, MOST_DOCUMENT_BYTES, readDocument } from '$lib/server/paper';

/** The text of a document that was written elsewhere. Nothing of it is kept: its author takes over what was read. */
export const POST = route(staff('write_papers'), async ({ otium, staff, params, request }) => {
	await draftFor(otium.db, staff, params.id);
	const bytes = new Uint8Array(await request.arrayBuffer());
	if (bytes.length > MOST_DOCUMENT_BYTES) fail('too_large');
	const read = await readDocument(otium, bytes);
	if (!read.ok) fail('not_taken', { message: read.message });
	return { text: read.text, told: read.told };
});
