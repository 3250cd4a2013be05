import type { Handle, HandleServerError, RequestEvent, ServerInit } from '@sveltejs/kit';
import { building } from '$app/environment';
import { clientAddress, readRanges } from '$core/access';
import { setHourStyle } from '$core/time';
import { isUnavailable } from '$lib/server/db';
import { demoClock } from '$lib/server/demo';
import { problemResponse, readCookie } from '$lib/server/http';
import { deviceByToken, hashToken, readClientNote } from '$lib/server/identity';
import { staffByToken } from '$lib/server/sign-in';
import { startOtium, type Otium } from '$lib/server/otium';

let otium: Otium;

/** `OTIUM_HOURS=12` shows times as `9:30 pm` everywhere; otherwise 24 hours. */
const HOURS = process.env.OTIUM_HOURS === '12' ? '12' : '24';

export const init: ServerInit = async () => {
	if (building) return;
	setHourStyle(HOURS);
	const dataDir = process.env.OTIUM_DATA ?? 'data';
	otium = await startOtium({ dataDir, now: await demoClock(dataDir), logLevel: process.env.OTIUM_LOG ?? 'warn' });
	const stop = async () => {
		await otium.stop();
		process.exit(0);
	};
	// Told by the server when the last request has been answered.
	process.once('sveltekit:shutdown' as never, stop);
};

const AT_THE_DOOR = /^\/sit\/api\/(knock|arrive|rehearse)$/;
const SAFE = new Set(['GET', 'HEAD', 'OPTIONS']);

/** A changing request must come from a page of ours: browsers say where it comes from, whatever its content type is. */
function comesFromElsewhere(request: Request, url: URL): boolean {
	if (SAFE.has(request.method)) return false;
	const origin = request.headers.get('origin');
	if (origin !== null) return origin !== url.origin;
	// No origin: not a browser's cross-site request, unless the browser itself says that it is.
	return !['same-origin', 'none', null].includes(request.headers.get('sec-fetch-site'));
}

/** A sign-in is far smaller. What a form brings is read whole before anybody is asked, so it is cut here. */
const MOST_FORM_BYTES = 16 * 1024;
/** Where a form brings a file, which its route measures and nobody reads who is not signed in. */
const TAKES_FILE = '/prepare/people/import';

/** Whether this is a form that is larger than forms are, or does not say how large it is. */
function isTooMuch(request: Request, url: URL): boolean {
	const type = request.headers.get('content-type') ?? '';
	if (!/^(multipart\/form-data|application\/x-www-form-urlencoded)/i.test(type) || url.pathname === TAKES_FILE)
		return false;
	const length = request.headers.get('content-length');
	return length === null || !(Number(length) <= MOST_FORM_BYTES);
}

/** `OTIUM_PROXIES` names the deployment's own proxies as address ranges; nobody else's forwarding header is believed. */
const PROXIES = readRanges(process.env.OTIUM_PROXIES ?? '').ranges;

function addressOf(event: RequestEvent): string {
	let connection = '';
	try {
		// Whoever has gone by now has none.
		connection = event.getClientAddress() ?? '';
	} catch {
		// Nobody is connected while pages are built.
	}
	return clientAddress(connection, event.request.headers.get('x-forwarded-for'), PROXIES);
}

/**
 * Reads on what a route has refused unread. A body that stays on the line keeps everything behind it waiting until the
 * line is cut.
 */
async function drain({ body, bodyUsed }: Request) {
	if (!body || bodyUsed) return;
	try {
		for await (const _ of body as unknown as AsyncIterable<Uint8Array>);
	} catch {
		// Too large, or broken off: the line is gone by itself.
	}
}

export const handle: Handle = async (input) => {
	const response = await respond(input);
	await drain(input.event.request);
	return response;
};

const respond: Handle = async ({ event, resolve }) => {
	const { request, url, cookies } = event;
	if (comesFromElsewhere(request, url)) return problemResponse('other_origin');
	if (isTooMuch(request, url)) return problemResponse('too_large');
	event.locals.otium = otium;
	event.locals.address = addressOf(event);
	event.locals.staff = null;
	event.locals.staffSession = null;
	event.locals.device = null;
	event.locals.digest = null;
	event.locals.client = null;
	event.locals.signIn = null;
	const atSit = url.pathname === '/sit' || url.pathname.startsWith('/sit/');
	if (atSit) {
		const token = readCookie(cookies, url, 'sitting');
		if (token) event.locals.device = await deviceByToken(otium.db, token, otium.now());
		if (event.locals.device) event.locals.signIn = hashToken(token!);
		const note = readCookie(cookies, url, 'client');
		// At the door a client has proved itself a moment ago; what comes after is signed by it, each for itself.
		if (note && AT_THE_DOOR.test(url.pathname))
			event.locals.client = await readClientNote(otium, note, event.locals.address);
	} else {
		const token = readCookie(cookies, url, 'staff');
		const session = token ? await staffByToken(otium, token) : null;
		event.locals.staffSession = session;
		if (session?.awaits === null) event.locals.staff = session.staff;
		if (session) event.locals.signIn = hashToken(token!);
	}
	const response = await resolve(event, {
		transformPageChunk: ({ html }) => html.replace('%otium.hours%', HOURS)
	});
	response.headers.set('x-content-type-options', 'nosniff');
	response.headers.set('x-frame-options', 'DENY');
	response.headers.set('referrer-policy', 'same-origin');
	response.headers.set('cross-origin-opener-policy', 'same-origin');
	response.headers.set('cross-origin-resource-policy', 'same-origin');
	// A year, once somebody has come by HTTPS; a plain connection can't say so.
	if (url.protocol === 'https:') response.headers.set('strict-transport-security', 'max-age=31536000');
	response.headers.set('permissions-policy', 'geolocation=(), payment=(), usb=()');
	if (!response.headers.has('cache-control')) response.headers.set('cache-control', 'no-store');
	return response;
};

export const handleError: HandleServerError = ({ error, event, status, message }) => {
	if (isUnavailable(error)) {
		otium.log.error({ err: error, path: event.url.pathname }, 'the database cannot be written');
		return {
			message: 'Not saved: the server can’t write to its disk just now.',
			instead: 'Try again in a moment; nothing that was saved is lost.'
		};
	}
	if (status >= 500) otium.log.error({ err: error, path: event.url.pathname }, 'a request failed');
	if (status === 404)
		return { message: 'There is nothing here by that name.', instead: 'Choose from the bar at the top.' };
	return status >= 500
		? {
				message: 'Something went wrong here, not with you.',
				instead: 'Try again. If it keeps happening, tell the person who runs this server.'
			}
		: { message };
};
