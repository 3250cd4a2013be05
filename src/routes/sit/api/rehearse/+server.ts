import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { DEVICE_CHECKS, type DeviceCheck } from '$core/access';
import { orTryAgain, readJson, refuse } from '$lib/server/http';
import { rehearse } from '$lib/server/identity';
import type { RequestHandler } from './$types';

const Asked = z.object({
	number: z.string().max(60),
	family: z.string().max(120),
	deviceName: z.string().max(80),
	results: z
		.array(
			z.object({ key: z.enum(Object.keys(DEVICE_CHECKS) as [DeviceCheck]), ok: z.boolean(), says: z.string().max(200) })
		)
		.max(20)
});

/**
 * Says the time, for the clock and the line to be measured by: the machine's own, as a demo day has another that no
 * device could agree with.
 */
export const GET: RequestHandler = () => json({ now: Date.now() });

export const POST: RequestHandler = async ({ request, locals: { otium, address, client } }) => {
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	return orTryAgain(async () => {
		const result = await rehearse(otium, { ...body.data, address, client });
		return result.ok ? json(result) : refuse(result.refusal, result.waitSeconds);
	});
};
