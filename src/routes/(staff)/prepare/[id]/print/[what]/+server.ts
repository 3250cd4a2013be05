import { allowSession, NO_SUCH_THING, problem } from '$lib/server/http';
import { PRINTS, printFor, type Print } from '$lib/server/print';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async (event) => {
	// A proctor prints for their own room.
	const allowed = await allowSession(event, event.params.id, 'run_session');
	if (!allowed.ok) return allowed.response;
	const { what } = event.params;
	if (!(what in PRINTS)) return problem(404, NO_SUCH_THING);
	const pdf = await printFor(allowed.otium, allowed.session, what as Print, event.url.origin);
	return new Response(pdf as BodyInit, {
		headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="${what}.pdf"` }
	});
};
