import { fail } from '$core/problem';
import { route, staff } from '$lib/server/http';
import { keepMedium, MOST_MEDIUM_BYTES } from '$lib/server/media';

/** Keeps the picture, sound or film that is sent as the body. It belongs to no question until one names it. */
export const POST = route(staff('write_papers'), async ({ otium, staff, request }) => {
	if (Number(request.headers.get('content-length') ?? 0) > MOST_MEDIUM_BYTES) fail('medium', { status: 413 });
	return keepMedium(otium, new Uint8Array(await request.arrayBuffer()), staff.id);
});
