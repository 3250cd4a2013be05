import type { Cookies } from '@sveltejs/kit';

type Name = 'staff' | 'sitting' | 'device' | 'browser' | 'client' | 'known' | 'oidc';

/**
 * Staff and candidates have cookies of their own that are read in their own parts of the site alone, so that a proctor
 * who tries the candidate's side in the same browser mixes nothing up.
 */
function nameOf(name: Name, url: URL): string {
	// Browsers take `__Host-` only over HTTPS.
	return url.protocol === 'https:' ? `__Host-otium-${name}` : `otium-${name}`;
}

export function readCookie(cookies: Cookies, url: URL, name: Name): string | undefined {
	return cookies.get(nameOf(name, url));
}

/** @param sameSite `lax`: comes along also when another site has led here */
export function writeCookie(
	cookies: Cookies,
	url: URL,
	name: Name,
	value: string,
	maxAgeSeconds: number,
	sameSite: 'strict' | 'lax' = 'strict'
) {
	cookies.set(nameOf(name, url), value, {
		path: '/',
		httpOnly: true,
		sameSite,
		secure: url.protocol === 'https:',
		maxAge: maxAgeSeconds
	});
}

export function clearCookie(cookies: Cookies, url: URL, name: Name) {
	cookies.delete(nameOf(name, url), { path: '/', secure: url.protocol === 'https:' });
}
