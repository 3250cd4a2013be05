import { z } from 'zod';
import { anyoneWith, refuse, route, writeCookie } from '$lib/server/http';
import { proveClient } from '$lib/server/identity';

const Answer = z.object({
	nonce: z.string().max(300),
	device: z.string().max(40),
	version: z.string().regex(/^\d{1,4}(\.\d{1,4}){0,2}$/, 'A version like 2.1.'),
	signature: z.string().max(100)
});

/** A sealed client answers its challenge, and is known by a cookie for some minutes. */
export const POST = route(
	anyoneWith('a challenge of the house', 'the signature of an enrolled client, once'),
	Answer,
	async ({ otium, body, locals, cookies, url }) => {
		const result = await proveClient(otium, { ...body, address: locals.address });
		// No wrong proof makes anybody wait: a key is not guessed, each try needs a challenge, and those are counted. A room of
		// devices that were withdrawn must not shut the door for everybody behind the same address.
		if (!result.ok) refuse({ code: 'client_unproven', message: result.message, instead: result.instead });
		writeCookie(cookies, url, 'client', result.note, Math.floor((result.expires - otium.now()) / 1_000));
		return { expires: result.expires, cookie: result.note };
	}
);
