import { z } from 'zod';
import { coordinatorOfAll, route, staff } from '$lib/server/http';
import { saveHouseCard } from '$lib/server/house-card';
import { setUpPlace } from '$lib/server/setting-up';

const Asked = z.discriminatedUnion('act', [
	z.object({
		act: z.literal('place'),
		name: z.string().trim().min(1, 'Name your school or board.').max(120, 'At most 120 letters.'),
		/** Empty: none is made. */
		site: z.string().trim().max(80, 'At most 80 letters for the site.'),
		zone: z.string().trim().max(60).nullable(),
		address: z.string().trim().max(200)
	}),
	z.object({ act: z.literal('hide'), isHidden: z.boolean() })
]);

/** What is shared by the whole house: its name, its address, its first site, and whether the list of steps is shown. */
export const POST = route(staff('change_shared'), Asked, async ({ otium, staff, body }) => {
	const by = coordinatorOfAll(staff);
	if (body.act === 'hide') {
		await saveHouseCard(otium, by, { isListHidden: body.isHidden });
		return { ok: true };
	}
	return { card: await setUpPlace(otium, by, body) };
});
