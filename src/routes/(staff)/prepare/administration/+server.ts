import { z } from 'zod';
import { coordinatorOfAll, LARGE, orRefuse, route, staff } from '$lib/server/http';
import { day, timeOfDay } from '$lib/server/records';
import { makeAdministration, makeSite, saveAdministration } from '$lib/server/places';

const stock = z
	.number({ error: 'Give a whole number of sittings.' })
	.int('Give a whole number of sittings.')
	.min(0)
	.max(10_000_000)
	.nullable();
const ids = z.array(z.string().max(64)).max(500);
const Asked = z.object({
	id: z.string().max(64),
	name: z.string().trim().min(1, 'A name is needed.').max(120),
	opensOn: day.nullable(),
	closesOn: day.nullable(),
	bought: stock,
	sites: z
		.array(
			z.object({ id: z.string().max(64), opens: timeOfDay.nullable(), closes: timeOfDay.nullable(), allotted: stock })
		)
		.max(500),
	papers: z.array(z.object({ id: z.string().max(64), everywhere: z.boolean(), siteIds: ids, groupIds: ids })).max(2_000)
});

const Made = z.discriminatedUnion('make', [
	z.object({ make: z.literal('administration'), name: z.string().trim().min(1, 'A name is needed.').max(120) }),
	z.object({
		make: z.literal('site'),
		name: z.string().trim().min(1, 'A name is needed.').max(80),
		zone: z.string().trim().max(60)
	})
]);

/** Makes an administration or a site. */
export const PUT = route(staff('change_shared'), Made, async ({ otium, staff, body }) => {
	const by = coordinatorOfAll(staff);
	const result = orRefuse(
		body.make === 'site'
			? await makeSite(otium, by, body.name, body.zone)
			: await makeAdministration(otium, by, body.name)
	);
	return { ok: true, id: 'id' in result ? result.id : null };
});

export const POST = route(
	staff('change_shared'),
	{ schema: Asked, mostBytes: LARGE },
	async ({ otium, staff, body: { id, ...change } }) => {
		orRefuse(await saveAdministration(otium, coordinatorOfAll(staff), id, change));
		return { ok: true, savedAt: otium.now() };
	}
);
