import { json } from '@sveltejs/kit';
import { mayAnywhere } from '$core/access';
import { NO_SUCH_THING, NOT_YOURS, problem, SIGNED_OUT } from '$lib/server/http';
import { MOST_PHOTO_BYTES, readPhoto, savePhoto } from '$lib/server/pictures';
import { findPerson } from '$lib/server/people';
import { coordinatesSite } from '$lib/server/session';
import type { RequestEvent, RequestHandler } from './$types';

const NOT_A_PHOTO = {
	code: 'photo',
	message: 'This file is not a photo that can be kept.',
	instead: 'A JPEG or PNG of at most 400 kB can.'
};

async function refusal({ params, locals: { staff, otium } }: RequestEvent): Promise<Response | null> {
	if (!staff) return problem(401, SIGNED_OUT);
	if (!mayAnywhere(staff, 'prepare')) return problem(403, NOT_YOURS);
	const person = await findPerson(otium.db, params.id, otium.now());
	if (!person) return problem(404, NO_SUCH_THING);
	return coordinatesSite(staff, person.site.id) ? null : problem(403, NOT_YOURS);
}

export const GET: RequestHandler = async (event) => {
	const refused = await refusal(event);
	if (refused) return refused;
	const photo = await readPhoto(event.locals.otium, event.params.id);
	if (!photo) return problem(404, NO_SUCH_THING);
	return new Response(new Uint8Array(photo.bytes), { headers: { 'content-type': photo.type } });
};

/** Keeps the photo that is sent as the body. */
export const PUT: RequestHandler = async (event) => {
	const refused = await refusal(event);
	if (refused) return refused;
	if (Number(event.request.headers.get('content-length') ?? 0) > MOST_PHOTO_BYTES) return problem(413, NOT_A_PHOTO);
	const bytes = new Uint8Array(await event.request.arrayBuffer());
	return (await savePhoto(event.locals.otium, event.params.id, bytes)) ? json({ ok: true }) : problem(422, NOT_A_PHOTO);
};

export const DELETE: RequestHandler = async (event) => {
	const refused = await refusal(event);
	if (refused) return refused;
	await savePhoto(event.locals.otium, event.params.id, null);
	return json({ ok: true });
};
