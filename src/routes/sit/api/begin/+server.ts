import { z } from 'zod';
import { boundDevice, orRefuse, route } from '$lib/server/http';
import { begin } from '$lib/server/sitting';

const Asked = z.object({ commandId: z.string().min(8).max(64), startWord: z.string().max(80).default('') });

export const POST = route(boundDevice, Asked, async ({ otium, device, body, locals }) => {
	orRefuse(await begin(otium, device.sittingId, body.commandId, body.startWord, locals.client));
	return { ok: true };
});
