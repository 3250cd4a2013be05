import { z } from 'zod';
import { fail } from '$core/problem';
import { anyone, orRefuse, readCookie, route, writeCookie } from '$lib/server/http';
import { arrive, deviceOf, newDeviceSecret, readPublicKey } from '$lib/server/identity';

const Asked = z.object({
	note: z.string().max(2_000),
	commandId: z.string().min(8).max(64),
	deviceName: z.string().max(80),
	/** SPKI in base64url; null: this browser can't sign. */
	publicKey: z.string().max(300).nullable().default(null)
});
const YEAR_S = 365 * 24 * 3_600;

export const POST = route(anyone, Asked, async ({ otium, body, locals, cookies, url }) => {
	const publicKey = body.publicKey === null ? null : readPublicKey(body.publicKey);
	if (body.publicKey !== null && publicKey === null) fail('malformed', { message: 'This is not a P-256 key.' });
	const sent = readCookie(cookies, url, 'device');
	// A device does not choose who it is: what was not drawn here is a new one.
	const known = await deviceOf(otium.db, sent, publicKey);
	const secret = known === null ? await newDeviceSecret(otium.db) : sent!;
	const deviceId = known ?? (await deviceOf(otium.db, secret, publicKey))!;
	const { device } = orRefuse(await arrive(otium, { ...body, publicKey, deviceId, address: locals.address }));
	const { token, expires, sittingId, epoch } = device;
	writeCookie(cookies, url, 'device', secret, YEAR_S);
	writeCookie(cookies, url, 'sitting', token, Math.floor((expires - otium.now()) / 1_000));
	return { sittingId, epoch };
});
