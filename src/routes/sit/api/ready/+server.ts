import { z } from 'zod';
import { DEVICE_CHECKS, type DeviceCheck } from '$core/access';
import { boundDevice, route } from '$lib/server/http';
import { checkAtDoor } from '$lib/server/identity';

const Asked = z.object({
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

/** What the list at the door found out about the bound device. */
export const POST = route(boundDevice, Asked, async ({ otium, device, body, locals: { client } }) => {
	await otium.quotas.take('commands', device.sittingId);
	return checkAtDoor(otium, device.sittingId, { ...body, client });
});
