import { addressOf } from '$lib/server/house-card';
import { z } from 'zod';
import { may } from '$core/access';
import { fail } from '$core/problem';
import { applyPlaces, checkPlaces, proposeForAll, undoPlaces } from '$lib/server/grants';
import { confirmed, LARGE, route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';

const id = z.string().max(64);
const day = z.iso.date('Give a date, like 2026-12-08.');
const places = z
	.array(
		z.object({
			id,
			opens: z.number().int().min(0),
			closes: z.number().int().min(0),
			roomId: id,
			proctorId: id.nullable()
		})
	)
	.min(1, 'Nobody is in this plan.')
	.max(1_000);
const where = { siteId: id, day };
const Asked = z.discriminatedUnion('act', [
	z.object({ act: z.literal('propose'), ...where }),
	z.object({ act: z.literal('check'), ...where, places }),
	z.object({
		act: z.literal('apply'),
		...where,
		id: z.string().min(8).max(40),
		places,
		reason: z.string().trim().min(1, 'Say why, in a few words.').max(300),
		tell: z.boolean()
	}),
	z.object({ act: z.literal('undo'), siteId: id, id: z.string().min(8).max(40) })
]);

/** Windows for everyone whose time does not fit: proposed, looked over, given as a whole, taken back as a whole. */
export const POST = route(
	confirmed(staff('grant')),
	{ schema: Asked, mostBytes: LARGE },
	async ({ otium, staff, url, body: asked }) => {
		if (!may(staff, 'grant', { siteId: asked.siteId, proctorIds: [] })) fail('not_yours');
		switch (asked.act) {
			case 'propose':
				return proposeForAll(otium, staff, asked.siteId, asked.day);
			case 'check':
				return checkPlaces(otium.db, staff, asked.siteId, asked.day, asked.places, otium.now());
			case 'apply':
				return applyPlaces(otium, staff, actorAt(staff, asked.siteId), asked, await addressOf(otium.db, url));
			case 'undo':
				return { withdrawn: await undoPlaces(otium, staff, actorAt(staff, asked.siteId), asked.id) };
		}
	}
);
