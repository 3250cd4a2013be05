import { z } from 'zod';
import { confirmed, route, staff } from '$lib/server/http';
import { actorAt } from '$lib/server/identity';
import { reopenFor } from '$lib/server/grants';
import { day, lastDay, timeOfDay } from '$lib/server/records';
import { loadSitting } from '$lib/server/sitting';
import { fail } from '$core/problem';

const id = z.string().max(64);
const Asked = z.object({
	id: z.string().min(8).max(40),
	sittingId: id,
	reason: z.string().trim().min(1, 'Say why, in a few words.').max(300),
	minutes: z
		.number({ error: 'Give whole minutes.' })
		.int('Give whole minutes.')
		.min(0)
		.max(600, 'At most 600 minutes.'),
	window: z
		.object({
			date: day,
			opens: timeOfDay,
			closes: timeOfDay,
			lastDate: lastDay,
			roomId: id.nullable(),
			proctorId: id.nullable()
		})
		.nullable(),
	anotherDay: z.boolean().default(false)
});

/** Opens one sitting that has ended, for its candidate alone. */
export const POST = route(confirmed(staff('reopen')), Asked, async ({ otium, staff, body }) => {
	const one = await loadSitting(otium.db, body.sittingId, otium.now());
	if (!one) fail('not_found');
	return reopenFor(otium, staff, actorAt(staff, one.session.site.id), body);
});
