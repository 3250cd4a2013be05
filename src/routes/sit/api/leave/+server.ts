import { anyone, clearCookie, route } from '$lib/server/http';

/** Signs this device out, for the next candidate. The sitting stays as it is. */
export const POST = route(anyone, ({ cookies, url }) => {
	clearCookie(cookies, url, 'sitting');
	return { ok: true };
});
