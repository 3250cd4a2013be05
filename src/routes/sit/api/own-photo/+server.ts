import { fail } from '$core/problem';
import { boundDevice, route } from '$lib/server/http';
import { readPhoto } from '$lib/server/pictures';
import { loadSitting } from '$lib/server/sitting';

/** The candidate's own photo, on their own device, where the rules put it on the paper. */
export const GET = route(boundDevice, async ({ otium, device }) => {
	const one = await loadSitting(otium.db, device.sittingId, otium.now());
	const photo = one?.session.rules.door.photoOnPaper ? await readPhoto(otium, one.candidate.id) : null;
	if (!photo) fail('not_found');
	return new Response(new Uint8Array(photo.bytes), { headers: { 'content-type': photo.type } });
});
