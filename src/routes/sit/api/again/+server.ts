import { z } from 'zod';
import { refusal } from '$core/sitting';
import { boundDevice, orRefuse, readCookie, refuse, route, writeCookie } from '$lib/server/http';
import { deviceOf, signInDevice } from '$lib/server/identity';
import { sitAgain } from '$lib/server/session';

const Asked = z.object({ commandId: z.string().min(8).max(64), deviceName: z.string().max(80) });

/** Whoever has handed in sits the paper once more, where the rules give another attempt. */
export const POST = route(boundDevice, Asked, async ({ otium, device, body, cookies, url }) => {
	await otium.quotas.take('commands', device.sittingId);
	const deviceId = await deviceOf(otium.db, readCookie(cookies, url, 'device'), device.publicKey);
	if (deviceId === null) refuse(refusal('second_device'));
	const { deviceName, commandId } = body;
	const unsigned = device.publicKey === null && { unsigned: true as const };
	const next = orRefuse(await sitAgain(otium, device.sittingId, { commandId, deviceId, deviceName, ...unsigned }));
	// Who repeats this from another device has the attempt told, and gets no part in it.
	const signedIn = await signInDevice(otium, next.sittingId, deviceId, device.publicKey);
	if (!signedIn) refuse(refusal('second_device'));
	const { token, expires, sittingId, epoch } = signedIn;
	writeCookie(cookies, url, 'sitting', token, Math.floor((expires - otium.now()) / 1_000));
	return { sittingId, epoch };
});
