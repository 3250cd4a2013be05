import QRCode from 'qrcode';
import { z } from 'zod';
import { fail } from '$core/problem';
import { mustBeConfirmed, oneself, route } from '$lib/server/http';
import {
	askToMake,
	newRecoveryCodes,
	offerApp,
	removeApp,
	removePasskey,
	takeApp,
	takePasskey
} from '$lib/server/sign-in';

const Asked = z.discriminatedUnion('act', [
	z.object({ act: z.literal('ask_passkey') }),
	z.object({
		act: z.literal('take_passkey'),
		id: z.string().max(40),
		response: z.looseObject({ id: z.string().max(1_000) }),
		name: z.string().trim().min(1).max(60)
	}),
	z.object({ act: z.literal('remove_passkey'), id: z.string().max(1_000) }),
	z.object({ act: z.literal('offer_app') }),
	z.object({ act: z.literal('take_app'), code: z.string().max(20) }),
	z.object({ act: z.literal('remove_app') }),
	z.object({ act: z.literal('new_codes') })
]);

/** One's own second steps: set up, taken away, set up anew. */
export const POST = route(oneself('enrol', { alsoWithin: true }), Asked, async ({ otium, self, body, locals, url }) => {
	mustBeConfirmed(locals);
	const { staffId } = self;
	switch (body.act) {
		case 'ask_passkey':
			return askToMake(otium, self, url);
		case 'take_passkey':
			if (!(await takePasskey(otium, self, body.id, body.response as never, body.name, url))) fail('wrong_passkey');
			return { ok: true };
		case 'remove_passkey':
			if (!(await removePasskey(otium, staffId, body.id))) fail('not_found');
			return { ok: true };
		case 'offer_app': {
			const { secret, address } = await offerApp(otium, staffId);
			return { secret, picture: await QRCode.toDataURL(address, { margin: 2, width: 320 }) };
		}
		case 'take_app':
			if (!(await takeApp(otium, staffId, body.code))) fail('wrong_code');
			return { ok: true };
		case 'remove_app':
			await removeApp(otium, staffId);
			return { ok: true };
		case 'new_codes':
			return { codes: await newRecoveryCodes(otium, staffId) };
	}
});
