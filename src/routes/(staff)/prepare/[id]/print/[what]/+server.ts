import { addressOf } from '$lib/server/house-card';
import { fail } from '$core/problem';
import { inSession, route } from '$lib/server/http';
import { PRINTS, printFor, type Print } from '$lib/server/print';

/** A proctor prints for their own room. */
export const GET = route(inSession('run_session'), async ({ otium, session, params: { what }, url }) => {
	if (!Object.hasOwn(PRINTS, what)) fail('not_found');
	const pdf = await printFor(otium, session, what as Print, await addressOf(otium.db, url));
	return new Response(pdf as BodyInit, {
		headers: { 'content-type': 'application/pdf', 'content-disposition': `inline; filename="${what}.pdf"` }
	});
});
