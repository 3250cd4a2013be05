import { json } from '@sveltejs/kit';
import { mayAnywhere } from '$core/access';
import { NOT_YOURS, problem, SIGNED_OUT } from '$lib/server/http';
import { verifyLogbook } from '$lib/server/logbook';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async ({ locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	if (!mayAnywhere(staff, 'see_logbook')) return problem(403, NOT_YOURS);
	return json(await verifyLogbook(otium.db));
};
