import { json } from '@sveltejs/kit';
import { z } from 'zod';
import { LAPSE_KINDS } from '$core/lockdown';
import { noteLapses } from '$lib/server/lockdown';
import { allowDevice, orNotSavedYet, readJson } from '$lib/server/http';
import type { RequestHandler } from './$types';

const Asked = z.object({
	lapses: z
		.array(
			z.object({
				id: z.string().min(8).max(64),
				kind: z.enum([...LAPSE_KINDS, 'site']),
				from: z.number().int().min(0),
				to: z.number().int().min(0).nullable()
			})
		)
		.min(1)
		.max(100)
});

/** What the watched device did. Its instants are by the server's clock; none can lie ahead of it. */
export const POST: RequestHandler = async (event) => {
	const allowed = await allowDevice(event);
	if (!allowed.ok) return allowed.response;
	const { otium, device } = allowed;
	const { request } = event;
	const body = await readJson(request, Asked);
	if (!body.ok) return body.response;
	const now = otium.now();
	return orNotSavedYet(async () => {
		await noteLapses(
			otium,
			device.sittingId,
			body.data.lapses.map((lapse) => {
				const from = Math.min(lapse.from, now);
				return { ...lapse, from, to: lapse.to === null ? null : Math.min(Math.max(lapse.to, from), now) };
			})
		);
		return json({ now });
	});
};
