import { fail } from '$core/problem';
import { anyoneWith, knownBrowser, route } from '$lib/server/http';
import { photoByNote } from '$lib/server/identity';

/** The photo beside "Is this you?", for whoever the door has just recognised. */
export const GET = route(
	anyoneWith('the door’s note, and cookie `device`', 'the house’s seal on it, which names this browser'),
	async ({ otium, cookies, url }) => {
		const { browser } = await knownBrowser(otium.db, cookies, url);
		const photo = await photoByNote(otium, url.searchParams.get('note') ?? '', browser);
		if (!photo) fail('not_found');
		return new Response(new Uint8Array(photo.bytes), { headers: { 'content-type': photo.type } });
	}
);
