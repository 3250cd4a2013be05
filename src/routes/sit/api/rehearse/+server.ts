import { z } from 'zod';
import { DEVICE_CHECKS, type DeviceCheck } from '$core/access';
import { anyone, anyoneWith, orRefuse, route } from '$lib/server/http';
import { rehearse } from '$lib/server/identity';

const Asked = z.object({
	/** The note of a link, or a slip's code; empty: nobody is told. */
	by: z.string().max(400),
	deviceName: z.string().max(80),
	results: z
		.array(
			z.object({
				key: z.enum(Object.keys(DEVICE_CHECKS) as [DeviceCheck]),
				ok: z.boolean(),
				says: z.string().max(200),
				without: z.boolean().optional()
			})
		)
		.max(20)
});

/**
 * Says the time, for the clock and the line to be measured by: the machine's own, as a demo day has another that no
 * device could agree with.
 */
export const GET = route(anyone, () => ({ now: Date.now() }));

export const POST = route(
	anyoneWith('a link, or a slip', 'the house’s seal on it; else nobody is told'),
	Asked,
	async ({ otium, body, locals: { address, client } }) => orRefuse(await rehearse(otium, { ...body, address, client }))
);
