import { z } from 'zod';
import { fail } from '$core/problem';
import { readRules } from '$core/rules';
import { DEFAULT_RULES } from '$core/session';
import { orRefuse, route, staff } from '$lib/server/http';
import { saveSheet, withdrawSheet } from '$lib/server/rules';

const Asked = z.object({
	name: z.string().trim().min(1, 'A name is needed.').max(120, 'A name of at most 120 letters.'),
	note: z.string().trim().max(500, 'A note of at most 500 letters.'),
	revision: z.number().int(),
	rules: z.unknown()
});

export const POST = route(staff('prepare'), Asked, async ({ otium, staff, params, body }) => {
	const read = readRules(body.rules, DEFAULT_RULES);
	if (!read.ok)
		fail(
			'malformed',
			{ status: 422, message: Object.values(read.faults)[0], instead: undefined },
			{ faults: read.faults }
		);
	const by = { role: 'coordinator' as const, id: staff.id };
	const saved = orRefuse(await saveSheet(otium, by, { ...body, id: params.id, rules: read.rules }));
	return { revision: saved.revision, savedAt: otium.now() };
});

export const DELETE = route(staff('prepare'), async ({ otium, staff, params }) => {
	orRefuse(await withdrawSheet(otium, { role: 'coordinator', id: staff.id }, params.id));
	return { ok: true };
});
