import { anyone, clearCookie, readCookie, route } from '$lib/server/http';
import { signOutDevice } from '$lib/server/identity';

/** Signs this device out, for the next candidate. The sitting stays as it is. */
export const POST = route(anyone, async ({ otium, cookies, url }) => {
	const token = readCookie(cookies, url, 'sitting');
	if (token) await signOutDevice(otium, token);
	clearCookie(cookies, url, 'sitting');
	return { ok: true };
});
