import { redirect } from '@sveltejs/kit';
import { clearCookie, readCookie } from '$lib/server/http';
import { signOut } from '$lib/server/sign-in';
import type { RequestHandler } from './$types';

export const POST: RequestHandler = async ({ cookies, url, locals }) => {
	const token = readCookie(cookies, url, 'staff');
	if (token) await signOut(locals.otium, token);
	clearCookie(cookies, url, 'staff');
	redirect(303, '/sign-in');
};
