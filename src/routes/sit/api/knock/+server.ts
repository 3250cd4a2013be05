import { z } from 'zod';
import { anyone, orRefuse, route } from '$lib/server/http';
import { knock } from '$lib/server/identity';

const Typed = z.object({
	code: z.string().max(60),
	number: z.string().max(60),
	family: z.string().max(120),
	given: z.string().max(120).optional(),
	/** `31-05` */
	birthday: z.string().max(5).optional(),
	deviceName: z.string().max(80).optional()
});

export const POST = route(anyone, Typed, async ({ otium, body, locals: { address, client } }) => {
	const { person } = orRefuse(await knock(otium, { ...body, address, client }));
	return person;
});
