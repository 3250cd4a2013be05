import { z } from 'zod';
import { anyoneWith, knownBrowser, route } from '$lib/server/http';
import { notMe } from '$lib/server/identity';

const Asked = z.object({ note: z.string().max(2_000), deviceName: z.string().max(80).default('A device') });

/** "No" to "Is this you?"; the note proves that the door had asked. */
export const POST = route(
	anyoneWith('the door’s note, and cookie `device`', 'the house’s seal on it, which names this browser'),
	Asked,
	async ({ otium, body, cookies, url }) => {
		const { browser } = await knownBrowser(otium.db, cookies, url);
		await notMe(otium, body.note, browser, body.deviceName);
		return { ok: true };
	}
);
