import { readFile } from 'node:fs/promises';
import { allowSession, NO_SUCH_THING, problem } from '$lib/server/http';
import { attachmentOf } from '$lib/server/incidents';
import type { RequestHandler } from './$types';

/** What was attached to an incident, as a download: never shown by the browser as a page of ours. */
export const GET: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'see_session');
	if (!allowed.ok) return allowed.response;
	const file = await attachmentOf(allowed.otium, allowed.session.id, event.params.incident);
	if (!file) return problem(404, NO_SUCH_THING);
	return new Response(new Uint8Array(await readFile(file.path)), {
		headers: {
			'content-type': file.type,
			'content-disposition': `attachment; filename*=UTF-8''${encodeURIComponent(file.name)}`
		}
	});
};
