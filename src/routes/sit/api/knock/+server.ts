import { z } from 'zod';
import { helpForCandidates } from '$lib/server/contacts';
import { anyone, knownBrowser, refuse, route } from '$lib/server/http';
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

export const POST = route(anyone, Typed, async ({ otium, body, cookies, url, locals: { address, client } }) => {
	const { browser } = await knownBrowser(otium.db, cookies, url);
	const met = await knock(otium, { ...body, address, client, browser });
	if (met.ok) return met.person;
	// Whoever is refused is told whom to turn to, where somebody is named for that.
	const help = await helpForCandidates(otium.db, new Date(otium.now()).toISOString().slice(0, 10));
	return refuse(met.refusal, met.waitSeconds, { help });
});
