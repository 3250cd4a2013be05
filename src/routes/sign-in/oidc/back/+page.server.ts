import { redirect } from '@sveltejs/kit';
import { clearCookie, readCookie } from '$lib/server/http';
import { readNote } from '$lib/server/identity';
import { takeOidc, type OidcAsked } from '$lib/server/sign-in';
import { keepSignIn, whence, whereNext } from '../../entered';
import type { PageServerLoad } from './$types';

/**
 * Whoever comes back from the house's own sign-in service. They go on by a step of this page itself: a browser sends a
 * cookie of ours with nothing that another site has led to.
 */
export const load: PageServerLoad = async ({ locals, url, cookies, request }) => {
	const { otium } = locals;
	const note = await readNote(otium.db, readCookie(cookies, url, 'oidc') ?? '', otium.now());
	clearCookie(cookies, url, 'oidc');
	if (!note?.state) redirect(303, '/sign-in?trouble=failed');
	const from = await whence({ locals, request, cookies, url });
	const asked = note as unknown as OidcAsked;
	const result = await takeOidc(otium, url, asked, from);
	if (!result.ok) redirect(303, `/sign-in?trouble=${result.trouble}`);
	keepSignIn(cookies, url, otium.now(), result.opened);
	return { next: whereNext(result.opened.awaits, asked.to, url) };
};
