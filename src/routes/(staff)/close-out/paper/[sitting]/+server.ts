import { z } from 'zod';
import { may } from '$core/access';
import { MOST_PRINTED_FORMS } from '$core/paper';
import { fail } from '$core/problem';
import { typeFromPaper } from '$lib/server/handed';
import { confirmed, route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { loadSitting } from '$lib/server/sitting';

const Asked = z.object({
	id: z.string().min(8).max(40),
	form: z.number().int().min(1).max(MOST_PRINTED_FORMS).nullable(),
	reason: z.string().trim().min(1, 'Say why it was written on paper.').max(500),
	answers: z
		.array(z.object({ questionId: z.string().max(100), text: z.string().max(50_000), before: z.string().max(50_000) }))
		.max(1_000)
});

/** What somebody wrote on paper, typed in. */
export const POST = route(confirmed(staff('decide')), Asked, async ({ otium, staff, params, body }) => {
	const one = await loadSitting(otium.db, params.sitting, otium.now());
	if (!one) fail('not_found');
	const { site, proctorIds } = one.session;
	if (!may(staff, 'decide', { siteId: site.id, proctorIds })) fail('not_yours');
	return { kept: await typeFromPaper(otium, actorAt(staff, site.id), params.sitting, body) };
});
