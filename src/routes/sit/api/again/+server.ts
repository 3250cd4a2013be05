import { nanoid } from 'nanoid';
import { z } from 'zod';
import { boundDevice, orRefuse, readCookie, route, writeCookie } from '$lib/server/http';
import { signInDevice } from '$lib/server/identity';
import { sitAgain } from '$lib/server/session';

const Asked = z.object({ commandId: z.string().min(8).max(64), deviceName: z.string().max(80) });

/** Whoever has handed in sits the paper once more, where the rules give another attempt. */
export const POST = route(boundDevice, Asked, async ({ otium, device, body, cookies, url }) => {
	const deviceId = readCookie(cookies, url, 'device') ?? nanoid();
	const next = orRefuse(await sitAgain(otium, device.sittingId, { ...body, deviceId }));
	const { token, expires, sittingId, epoch } = await signInDevice(otium, next.sittingId);
	writeCookie(cookies, url, 'sitting', token, Math.floor((expires - otium.now()) / 1_000));
	return { sittingId, epoch };
});
