import { z } from 'zod';
import { sitesWith } from '$core/access';
import { orRefuse, route, staff } from '$lib/server/http';
import { copySheet } from '$lib/server/rules';

/** The copy is of one's own site; of all, where one coordinates them all. */
export const POST = route(staff('prepare'), z.object({ from: z.string().max(64) }), async ({ otium, staff, body }) => {
	const siteId = sitesWith(staff, 'prepare')?.[0] ?? null;
	const { id } = orRefuse(
		await copySheet(otium, { role: 'coordinator', id: staff.id }, body.from, siteId),
		'not_found'
	);
	return { id };
});
