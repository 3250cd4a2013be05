import { json } from '@sveltejs/kit';
import { clearCookie } from '$lib/server/http';
import type { RequestHandler } from './$types';

/** Signs this device out, for the next candidate. The sitting stays as it is. */
export const POST: RequestHandler = async ({ cookies, url }) => {
	clearCookie(cookies, url, 'sitting');
	return json({ ok: true });
};
