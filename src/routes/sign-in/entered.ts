import { redirect, type Cookies } from '@sveltejs/kit';
import { knownBrowser, ownPath, STEPS, writeCookie } from '$lib/server/http';
import type { From, Opened } from '$lib/server/sign-in';

/** Keeps a sign-in in this browser. */
export function keepSignIn(cookies: Cookies, url: URL, now: number, { token, expires }: Opened) {
	writeCookie(cookies, url, 'staff', token, Math.floor((expires - now) / 1_000));
}

/** Where a sign-in goes on: at what it still waits for, or where somebody wanted to go. */
export function whereNext(awaits: Opened['awaits'], to: string, url: URL): string {
	const own = ownPath(to, url);
	return awaits === null ? own : `${STEPS[awaits]}?to=${encodeURIComponent(own)}`;
}

/** For the page of a step: whoever has not come to it, or is past it, is sent to where they are. */
export function mustBeAt(step: Opened['awaits'], { locals, url }: { locals: App.Locals; url: URL }) {
	const to = ownPath(url.searchParams.get('to'), url);
	const session = locals.staffSession;
	if (!session) redirect(303, `/sign-in?to=${encodeURIComponent(to)}`);
	if (session.awaits !== step) redirect(303, whereNext(session.awaits, to, url));
	return { to, name: session.staff.name, staffId: session.staff.id };
}

/** From where somebody signs in. */
export async function whence({ locals, request, cookies, url }: Coming): Promise<From> {
	const { browser } = await knownBrowser(locals.otium.db, cookies, url, 'browser');
	return { address: locals.address, agent: request.headers.get('user-agent') ?? '', browser };
}
type Coming = { locals: App.Locals; request: Request; cookies: Cookies; url: URL };
