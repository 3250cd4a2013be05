import { z } from 'zod';
import type { StaffMember } from '$core/access';
import { fail } from '$core/problem';
import { readRules } from '$core/rules';
import { DEFAULT_RULES } from '$core/session';
import type { Actor } from '$core/sitting';
import { orRefuse, route, staff } from '$lib/server/http';
import type { Otium } from '$lib/server/otium';
import { findSheet, mayChangeSheet, saveSheet, withdrawSheet } from '$lib/server/rules';

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
	const by = await keeperOf(otium, staff, params.id);
	const saved = orRefuse(await saveSheet(otium, by, { ...body, id: params.id, rules: read.rules }));
	return { revision: saved.revision, savedAt: otium.now() };
});

export const DELETE = route(staff('prepare'), async ({ otium, staff, params }) => {
	orRefuse(await withdrawSheet(otium, await keeperOf(otium, staff, params.id), params.id));
	return { ok: true };
});

/** Who changes it, where they coordinate the site that the sheet is of. One that is gone or shipped is told as such later. */
async function keeperOf(otium: Otium, staff: StaffMember, id: string): Promise<Actor> {
	const sheet = await findSheet(otium.db, id);
	if (sheet && !sheet.shipped && !mayChangeSheet(staff, sheet))
		fail('not_yours', {
			message: 'This rule sheet belongs to another site, or to all.',
			instead: 'Copy it, and change the copy.'
		});
	return { role: 'coordinator', id: staff.id };
}
