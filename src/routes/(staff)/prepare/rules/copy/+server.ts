import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { mayAnywhere } from '$core/access';
import { NOT_YOURS, orTryAgain, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { copySheet } from '$lib/server/rules';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ request, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	if (!mayAnywhere(staff, 'prepare')) return problem(403, NOT_YOURS);
	const body = await readJson(request, z.object({ from: z.string().max(64) }));
	if (!body.ok) return body.response;
	return orTryAgain(async () => {
		const result = await copySheet(otium, { role: 'coordinator', id: staff.id }, body.data.from);
		return result.ok ? json({ id: result.id }) : problem(404, { code: 'not_found', message: result.message });
	});
};
