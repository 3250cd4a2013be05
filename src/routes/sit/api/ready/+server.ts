import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { DEVICE_CHECKS, type DeviceCheck } from '$core/access';
import { allowDevice, orNotSavedYet, readJson } from '$lib/server/http';
import { checkAtDoor } from '$lib/server/identity';
import type { RequestHandler } from './$types';

const Asked = z.object({
	deviceName: z.string().max(80),
	results: z
		.array(
			z.object({ key: z.enum(Object.keys(DEVICE_CHECKS) as [DeviceCheck]), ok: z.boolean(), says: z.string().max(200) })
		)
		.max(20)
});

/** What the list at the door found out about the bound device. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowDevice(event);
	if (!allowed.ok) return allowed.response;
	const { otium, device } = allowed;
	const { client } = event.locals;
	const { request } = event;
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	return orNotSavedYet(async () => json(await checkAtDoor(otium, device.sittingId, { ...body.data, client })));
};
