import { fail } from '$core/problem';
import { anyone, route } from '$lib/server/http';
import { photoByNote } from '$lib/server/identity';

/** The photo beside "Is this you?", for whoever the door has just recognised. */
export const GET = route(anyone, async ({ otium, url }) => {
	const photo = await photoByNote(otium, url.searchParams.get('note') ?? '');
	if (!photo) fail('not_found');
	return new Response(new Uint8Array(photo.bytes), { headers: { 'content-type': photo.type } });
});
