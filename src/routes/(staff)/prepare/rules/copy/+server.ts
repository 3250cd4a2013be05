import { z } from 'zod';
import { orRefuse, route, staff } from '$lib/server/http';
import { copySheet } from '$lib/server/rules';

export const POST = route(staff('prepare'), z.object({ from: z.string().max(64) }), async ({ otium, staff, body }) => {
	const { id } = orRefuse(await copySheet(otium, { role: 'coordinator', id: staff.id }, body.from), 'not_found');
	return { id };
});
