import { z } from 'zod';
import { anyoneWith, refuse, route } from '$lib/server/http';
import { enrol } from '$lib/server/identity';

const Asked = z.object({
	code: z.string().max(40),
	name: z.string().trim().min(1).max(60),
	/** SPKI in base64url, on Ed25519: made on the device, which keeps the other half. */
	publicKey: z.string().max(200)
});

/** A device enrols for the sealed client, by the code that staff have made: `{ deviceId }`. */
export const POST = route(
	anyoneWith('a code that staff have made', 'that it was not used'),
	Asked,
	async ({ otium, body, locals }) => {
		const result = await enrol(otium, { ...body, address: locals.address });
		if (!result.ok)
			refuse({ code: 'client_unproven', message: result.message, instead: result.instead }, result.waitSeconds);
		return { deviceId: result.deviceId };
	}
);
