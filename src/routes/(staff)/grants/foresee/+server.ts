import { json } from '@sveltejs/kit';
import { foreseeGrant, GrantAsked, readGrant } from '$lib/server/grants';
import { problem, readJson, SIGNED_OUT } from '$lib/server/http';
import type { RequestHandler } from './$types';

/** What the grant would do, before it is given. */
export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	const body = await readJson(request, GrantAsked);
	if (!body.ok) return body.response;
	const read = await readGrant(otium, staff, body.data);
	if (!read.ok) return problem(read.status, read);
	return json(await foreseeGrant(otium.db, read.grant, otium.now()));
};
