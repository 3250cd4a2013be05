import { z } from 'zod';
import { lowerHand, raiseHand } from '$lib/server/messages';
import { boundDevice, route } from '$lib/server/http';

const Asked = z.object({ up: z.boolean(), text: z.string().trim().max(300).default('') });

/** A hand goes up, with words or without, or down again. */
export const POST = route(boundDevice, Asked, async ({ otium, device, body }) => {
	await otium.quotas.take('hands', device.sittingId);
	if (body.up) await raiseHand(otium, device.sittingId, body.text);
	else await lowerHand(otium, [device.sittingId]);
	return { ok: true };
});
