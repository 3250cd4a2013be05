import { z } from 'zod';
import { messagesSeen } from '$lib/server/messages';
import { boundDevice, route } from '$lib/server/http';

const Asked = z.object({ seen: z.array(z.string().max(140)).min(1).max(100) });

/** The candidate has read messages; the proctor sees that. */
export const POST = route(boundDevice, Asked, async ({ otium, device, body }) => {
	await messagesSeen(otium, device.sittingId, body.seen);
	return { ok: true };
});
