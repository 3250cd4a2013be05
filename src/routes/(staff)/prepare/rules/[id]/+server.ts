import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { mayAnywhere } from '$core/access';
import { readRules } from '$core/rules';
import { DEFAULT_RULES } from '$core/session';
import { NOT_YOURS, orTryAgain, problem, readJson, SIGNED_OUT } from '$lib/server/http';
import { saveSheet, withdrawSheet } from '$lib/server/rules';
import type { RequestHandler } from './$types';

const Asked = z.object({
	name: z.string().trim().min(1, 'A name is needed.').max(120, 'A name of at most 120 letters.'),
	note: z.string().trim().max(500, 'A note of at most 500 letters.'),
	revision: z.number().int(),
	rules: z.unknown()
});

export const POST: RequestHandler = async ({ request, params, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	if (!mayAnywhere(staff, 'prepare')) return problem(403, NOT_YOURS);
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const read = readRules(body.data.rules, DEFAULT_RULES);
	if (!read.ok)
		return json({ code: 'malformed', message: Object.values(read.faults)[0], faults: read.faults }, { status: 422 });
	return orTryAgain(async () => {
		const result = await saveSheet(
			otium,
			{ role: 'coordinator', id: staff.id },
			{ ...body.data, id: params.id, rules: read.rules }
		);
		return result.ok
			? json({ revision: result.revision, savedAt: otium.now() })
			: problem(409, { code: 'refused', message: result.message });
	});
};

export const DELETE: RequestHandler = async ({ params, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	if (!mayAnywhere(staff, 'prepare')) return problem(403, NOT_YOURS);
	const result = await withdrawSheet(otium, { role: 'coordinator', id: staff.id }, params.id);
	return result.ok ? json({ ok: true }) : problem(409, { code: 'refused', message: result.message });
};
