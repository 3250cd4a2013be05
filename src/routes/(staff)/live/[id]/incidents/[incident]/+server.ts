import { readFile } from 'node:fs/promises';
import { fail } from '$core/problem';
import { inSession, route } from '$lib/server/http';
import { attachmentOf } from '$lib/server/incidents';

/** What was attached to an incident, as a download: never shown by the browser as a page of ours. */
export const GET = route(inSession('see_session'), async ({ otium, session, params }) => {
	const file = await attachmentOf(otium, session.id, params.incident);
	if (!file) fail('not_found');
	return new Response(new Uint8Array(await readFile(file.path)), {
		headers: {
			'content-type': file.type,
			'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`
		}
	});
});
