import { fail } from '$core/problem';
import { personFor, route, staff } from '$lib/server/http';
import { MOST_PHOTO_BYTES, readPhoto, savePhoto } from '$lib/server/pictures';

export const GET = route(staff('prepare'), async ({ otium, staff, params }) => {
	const { person } = await personFor(otium, staff, params.id);
	const photo = await readPhoto(otium, person.id);
	if (!photo) fail('not_found');
	return new Response(new Uint8Array(photo.bytes), { headers: { 'content-type': photo.type } });
});

/** Keeps the photo that is sent as the body. */
export const PUT = route(staff('prepare'), async ({ otium, staff, params, request }) => {
	const { person } = await personFor(otium, staff, params.id);
	if (Number(request.headers.get('content-length') ?? 0) > MOST_PHOTO_BYTES) fail('photo', { status: 413 });
	if (!(await savePhoto(otium, person.id, new Uint8Array(await request.arrayBuffer())))) fail('photo');
	return { ok: true };
});

export const DELETE = route(staff('prepare'), async ({ otium, staff, params }) => {
	const { person } = await personFor(otium, staff, params.id);
	await savePhoto(otium, person.id, null);
	return { ok: true };
});
