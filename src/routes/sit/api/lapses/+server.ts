import { z } from 'zod';
import { groupBy } from '$core/group-by';
import { LAPSE_KINDS } from '$core/lockdown';
import { noteLapses } from '$lib/server/lockdown';
import { boundDevice, route } from '$lib/server/http';

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
export const POST = route(boundDevice, Asked, async ({ otium, device, body }) => {
	for (const [kind, lapses] of groupBy(body.lapses, (lapse) => lapse.kind))
		await otium.quotas.take('lapses', device.sittingId, lapses.length, kind);
	const now = otium.now();
	await noteLapses(
		otium,
		device.sittingId,
		body.lapses.map((lapse) => {
			const from = Math.min(lapse.from, now);
			return { ...lapse, from, to: lapse.to === null ? null : Math.min(Math.max(lapse.to, from), now) };
		})
	);
	return { now };
});
