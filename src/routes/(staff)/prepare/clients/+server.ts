import { z } from 'zod';
import { fail } from '$core/problem';
import { confirmed, coordinatorOf, route, staff } from '$lib/server/http';
import { makeSiteKey, withdrawSiteKey } from '$lib/server/identity';

export const POST = route(
	confirmed(staff()),
	z.object({ siteId: z.string().max(64) }),
	async ({ otium, staff, body: { siteId } }) => {
		const by = coordinatorOf(staff, siteId);
		if (!(await otium.db('site').where({ id: siteId }).first('id'))) fail('not_yours');
		return { key: await makeSiteKey(otium, by, siteId) };
	}
);

export const DELETE = route(confirmed(staff()), async ({ url, otium, staff }) => {
	const key = await otium
		.db('site_key')
		.where({ id: url.searchParams.get('id') ?? '' })
		.first('id', 'site_id');
	if (!key) fail('not_found');
	await withdrawSiteKey(otium, coordinatorOf(staff, key.site_id), key.id);
	return { ok: true };
});
