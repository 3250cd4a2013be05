import { z } from 'zod';
import { fail } from '$core/problem';
import { anyoneWith, knownBrowser, orRefuse, route, writeCookie } from '$lib/server/http';
import { arrive, deviceOf, readPublicKey } from '$lib/server/identity';

const Asked = z.object({
	note: z.string().max(2_000),
	commandId: z.string().min(8).max(64),
	deviceName: z.string().max(80),
	/** SPKI in base64url; null: this browser can't sign. */
	publicKey: z.string().max(300).nullable().default(null)
});

export const POST = route(
	anyoneWith('the door’s note, and cookie `device`', 'the house’s seal on it, which names this browser'),
	Asked,
	async ({ otium, body, locals, cookies, url }) => {
		const publicKey = body.publicKey === null ? null : readPublicKey(body.publicKey);
		if (body.publicKey !== null && publicKey === null) fail('malformed', { message: 'This is not a P-256 key.' });
		const { secret, browser } = await knownBrowser(otium.db, cookies, url);
		const deviceId = (await deviceOf(otium.db, secret, publicKey))!;
		const { address } = locals;
		const { device } = orRefuse(await arrive(otium, { ...body, publicKey, browser, deviceId, address }));
		const { token, expires, sittingId, epoch } = device;
		writeCookie(cookies, url, 'sitting', token, Math.floor((expires - otium.now()) / 1_000));
		return { sittingId, epoch };
	}
);
