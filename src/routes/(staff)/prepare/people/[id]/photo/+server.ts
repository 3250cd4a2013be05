import type { StaffMember } from '$core/access';
import { fail } from '$core/problem';
import { coordinatorOf, route, staff } from '$lib/server/http';
import type { Otium } from '$lib/server/otium';
import { MOST_PHOTO_BYTES, readPhoto, savePhoto } from '$lib/server/pictures';
import { findPerson } from '$lib/server/people';

/** Their photo is for those who coordinate their site. */
async function personOf(otium: Otium, staff: StaffMember, id: string): Promise<string> {
	const person = await findPerson(otium.db, id, otium.now());
	if (!person) fail('not_found');
	coordinatorOf(staff, person.site.id);
	return id;
}

export const GET = route(staff('prepare'), async ({ otium, staff, params }) => {
	const photo = await readPhoto(otium, await personOf(otium, staff, params.id));
	if (!photo) fail('not_found');
	return new Response(new Uint8Array(photo.bytes), { headers: { 'content-type': photo.type } });
});

/** Keeps the photo that is sent as the body. */
export const PUT = route(staff('prepare'), async ({ otium, staff, params, request }) => {
	const id = await personOf(otium, staff, params.id);
	if (Number(request.headers.get('content-length') ?? 0) > MOST_PHOTO_BYTES) fail('photo', { status: 413 });
	if (!(await savePhoto(otium, id, new Uint8Array(await request.arrayBuffer())))) fail('photo');
	return { ok: true };
});

export const DELETE = route(staff('prepare'), async ({ otium, staff, params }) => {
	await savePhoto(otium, await personOf(otium, staff, params.id), null);
	return { ok: true };
});
