import { z } from 'zod';
import { fail } from '$core/problem';
import { confirmed, coordinatorOf, route, staff } from '$lib/server/http';
import { openEnrolment, withdrawClientDevice } from '$lib/server/identity';

/** A code by which devices of a site enrol: `{ code, until }`. */
export const POST = route(
	confirmed(staff('prepare')),
	z.object({ siteId: z.string().max(64) }),
	async ({ otium, staff, body: { siteId } }) => {
		const by = coordinatorOf(staff, siteId);
		if (!(await otium.db('site').where({ id: siteId }).first('id'))) fail('not_yours');
		return openEnrolment(otium, by, siteId);
	}
);

export const DELETE = route(confirmed(staff('prepare')), async ({ url, otium, staff }) => {
	const device = await otium
		.db('client_device')
		.where({ id: url.searchParams.get('id') ?? '' })
		.first('id', 'site_id');
	if (!device) fail('not_found');
	await withdrawClientDevice(otium, coordinatorOf(staff, device.site_id), device.id);
	return { ok: true };
});
