import { NO_SUCH_THING, problem } from '$lib/server/http';
import { photoByNote } from '$lib/server/identity';
import type { RequestHandler } from './$types';

/** The photo beside "Is this you?", for whoever the door has just recognised. */
export const GET: RequestHandler = async ({ url, locals: { otium } }) => {
	const photo = await photoByNote(otium, url.searchParams.get('note') ?? '');
	if (!photo) return problem(404, NO_SUCH_THING);
	return new Response(new Uint8Array(photo.bytes), { headers: { 'content-type': photo.type } });
};
