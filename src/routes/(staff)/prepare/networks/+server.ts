import { z } from 'zod';
import { fail } from '$core/problem';
import { coordinatorOf, orRefuse, route, staff } from '$lib/server/http';
import { removeNetwork, saveNetwork } from '$lib/server/places';

const Asked = z.object({
	id: z.string().max(64).nullable(),
	siteId: z.string().max(64),
	name: z.string().trim().min(1, 'A name is needed.').max(80, 'A name of at most 80 letters.'),
	ranges: z.string().max(4_000, 'At most 4,000 letters of ranges.')
});

export const POST = route(staff('prepare'), Asked, async ({ otium, staff, body }) => {
	const { id, siteId } = body;
	const known = id === null ? null : await otium.db('network').where({ id }).first('site_id');
	if (id !== null && known?.site_id !== siteId) fail('not_yours');
	return orRefuse(await saveNetwork(otium, coordinatorOf(staff, siteId), body), 'not_taken');
});

export const DELETE = route(staff('prepare'), async ({ url, otium, staff }) => {
	const known = await otium
		.db('network')
		.where({ id: url.searchParams.get('id') ?? '' })
		.first('id', 'site_id');
	if (!known) fail('not_found');
	await removeNetwork(otium, coordinatorOf(staff, known.site_id), known.id);
	return { ok: true };
});
