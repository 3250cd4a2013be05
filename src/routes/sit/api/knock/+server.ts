import { z } from 'zod';
import { refusal } from '$core/sitting';
import { helpForCandidates } from '$lib/server/contacts';
import { anyoneWith, knownBrowser, refuse, route } from '$lib/server/http';
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

export const POST = route(
	anyoneWith('a code of a door, or a slip; a name', 'that they are somebody’s on its list'),
	Typed,
	async ({ otium, body, cookies, url, locals: { address, client } }) => {
		const { browser } = await knownBrowser(otium.db, cookies, url);
		const met = await knock(otium, { ...body, address, client, browser });
		if (met.ok) return met.person;
		// A miss never says which part was wrong: whether there is such a code is nobody's to find out either.
		const refused = met.refusal.code === 'code_unknown' ? refusal('identity_unknown') : met.refusal;
		// Whoever is refused is told whom to turn to, where somebody is named for that.
		const help = await helpForCandidates(otium.db, new Date(otium.now()).toISOString().slice(0, 10));
		return refuse(refused, met.waitSeconds, { help });
	}
);
