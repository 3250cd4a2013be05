import { anyoneWith, clearCookie, mustBeSigned, readCookie, route } from '$lib/server/http';
import { signOutDevice } from '$lib/server/identity';

/** Signs this device out, for the next candidate. The sitting stays as it is. */
export const POST = route(
	anyoneWith('cookie `sitting`', 'its signature'),
	async ({ otium, cookies, url, request, locals }) => {
		// A cookie that was copied signs nobody out.
		await mustBeSigned({ url, request, locals });
		const token = readCookie(cookies, url, 'sitting');
		if (token) await signOutDevice(otium, token);
		clearCookie(cookies, url, 'sitting');
		return { ok: true };
	}
);
