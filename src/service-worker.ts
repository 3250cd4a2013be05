/// <reference types="@sveltejs/kit" />
/// <reference no-default-lib="true"/>
/// <reference lib="esnext" />
/// <reference lib="webworker" />
import { version } from '$service-worker';

/**
 * Lets a candidate's page be loaded anew while the server can't be reached. It serves nothing else: only `/sit` is in its
 * reach, and no answer to a request for data is ever kept.
 */
const worker = globalThis as unknown as ServiceWorkerGlobalScope;
const CACHE = `otium ${version}`;
const PAGE = '/sit';
/** A server that does not answer within this is not there. */
const PATIENCE_MS = 4_000;

worker.addEventListener('install', () => void worker.skipWaiting());

worker.addEventListener('activate', (event) => {
	event.waitUntil(
		(async () => {
			// The version before stays as well: a page of it may still be open.
			const ours = (await caches.keys()).filter((name) => name.startsWith('otium ')).sort();
			for (const name of ours.slice(0, -2)) if (name !== CACHE) await caches.delete(name);
			await worker.clients.claim();
		})()
	);
});

/** The page says what it was made of: it was loaded before there was anybody to keep it. */
worker.addEventListener('message', (event) => {
	const { keep } = event.data as { keep?: string[] };
	if (!keep) return;
	event.waitUntil(
		(async () => {
			const cache = await caches.open(CACHE);
			// Without cookies: the page as it is for nobody. Whose paper it is, the tab knows by itself.
			await cache.add(new Request(PAGE, { credentials: 'omit' })).catch(() => {});
			for (const url of keep) if (!(await cache.match(url))) await cache.add(url).catch(() => {});
		})()
	);
});

worker.addEventListener('fetch', (event) => {
	const { request } = event;
	const url = new URL(request.url);
	if (request.method !== 'GET' || url.origin !== worker.location.origin) return;
	if (request.mode === 'navigate' && url.pathname === PAGE) event.respondWith(page(request));
	else if (url.pathname.startsWith('/_app/immutable/')) event.respondWith(part(request));
});

async function page(request: Request): Promise<Response> {
	try {
		const response = await fetch(request, { signal: AbortSignal.timeout(PATIENCE_MS) });
		// A server that is there and in trouble is as good as none, if there is something to go on with.
		return response.status >= 500 ? ((await caches.match(PAGE)) ?? response) : response;
	} catch (error) {
		const kept = await caches.match(PAGE);
		if (kept) return kept;
		throw error;
	}
}

/** Parts of the page bear their content's hash in their names: what is kept is right for ever. */
async function part(request: Request): Promise<Response> {
	const kept = await caches.match(request);
	if (kept) return kept;
	const response = await fetch(request);
	if (response.ok) await (await caches.open(CACHE)).put(request, response.clone());
	return response;
}
