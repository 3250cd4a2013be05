import { z } from 'zod';
import { boundDevice, orRefuse, route } from '$lib/server/http';
import { endBreak, takeBreak } from '$lib/server/sitting';

/** A granted break begins, or ends before its time. */
export const POST = route(boundDevice, z.object({ on: z.boolean() }), async ({ otium, device, body }) => {
	orRefuse(await (body.on ? takeBreak : endBreak)(otium, device.sittingId));
	return { ok: true };
});
