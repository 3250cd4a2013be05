import { redirect } from '@sveltejs/kit';
import { ownPath, writeCookie } from '$lib/server/http';
import { signNote } from '$lib/server/identity';
import { askOidc, oidcService } from '$lib/server/sign-in';
import type { RequestHandler } from './$types';

/** Sends somebody to the house's own sign-in service. */
export const GET: RequestHandler = async ({ locals: { otium, address }, url, cookies }) => {
	if (!oidcService() || (await otium.limits.asked('passkey', address)) > 0) redirect(303, '/sign-in?trouble=failed');
	const to = ownPath(url.searchParams.get('to'), url);
	const gone = await askOidc(otium, url, to).catch((error: unknown) => {
		otium.log.error({ err: error }, 'the sign-in service can’t be reached');
		return null;
	});
	if (!gone) redirect(303, '/sign-in?trouble=failed');
	const note = await signNote(otium.db, gone.asked, gone.asked.until);
	writeCookie(cookies, url, 'oidc', note, 600, 'lax');
	redirect(303, gone.address);
};
