// The built application behind Node's own HTTP server. Run by the other commands; settings come by environment.
import { createServer } from 'node:http';
import { setTimeout as sleep } from 'node:timers/promises';
import { fileURLToPath } from 'node:url';
import { keptFiles } from './kept-files.mjs';
import { isOwnHost } from './own-host.mjs';
import { startFailure } from './start-failure.mjs';

// What a server writes (database, pictures, mails, keys) is for its own account alone.
process.umask(0o077);

const port = Number(process.env.PORT ?? 4600);
const host = process.env.HOST ?? '127.0.0.1';
/** Further names of this house, where no origin is named. */
const names = (process.env.OTIUM_HOSTS ?? '')
	.split(',')
	.map((name) => name.trim())
	.filter(Boolean);

// The build must know by which scheme it was reached. Without a named origin that is plain HTTP, whatever a client
// claims: the header is set here, over anything that came in.
if (!process.env.ORIGIN) process.env.PROTOCOL_HEADER = 'x-otium-scheme';
// A file of people may be 10 MB; JSON is held to far less where it is read.
process.env.BODY_SIZE_LIMIT ??= '11M';

/** Whoever stops a server waits no longer than this, ms. */
const LAST_REQUESTS_MS = 5_000;

/** What is being answered. @type {Set<import('node:http').ServerResponse>} */
const open = new Set();
const isAtWork = () => [...open].some((response) => response.getHeader('content-type') !== 'text/event-stream');

/**
 * Takes nothing new, answers what is there, cuts the lines that never end, and lets the application stop.
 * @param {import('node:http').Server} server
 */
async function stop(server) {
	server.close();
	server.closeIdleConnections();
	const until = Date.now() + LAST_REQUESTS_MS;
	while (isAtWork() && Date.now() < until) await sleep(20);
	server.closeAllConnections();
	process.emit(/** @type {any} */ ('sveltekit:shutdown'));
}

try {
	const { handler } = await import('../build/handler.js');
	const files = fileURLToPath(new URL('../build/client/_app/immutable', import.meta.url));
	const sendKept = keptFiles(files, '/_app/immutable');
	const server = createServer((request, response) => {
		request.headers['x-otium-scheme'] = 'http';
		// A named origin is used whatever a request says of itself.
		if (!process.env.ORIGIN && !isOwnHost(request.headers.host, names)) {
			response.writeHead(421, { 'content-type': 'text/plain; charset=utf-8' });
			response.end('This server is not known by that name. Name it with --origin, or in OTIUM_HOSTS.\n');
			return;
		}
		if (sendKept(request, response)) return;
		open.add(response);
		response.once('close', () => open.delete(response));
		handler(request, response);
	});
	// Longer than a beat, so that a candidate's line is not closed between two of them.
	server.keepAliveTimeout = 65_000;
	server.on('error', (error) => {
		const { code } = /** @type {NodeJS.ErrnoException} */ (error);
		console.error(code === 'EADDRINUSE' ? `Port ${port} is in use. Choose another with --port.` : String(error));
		process.exit(1);
	});
	// A second signal ends it at once.
	for (const signal of ['SIGTERM', 'SIGINT']) process.once(signal, () => void stop(server));
	// A whole school's lines may come back in the same second; those that wait must not be turned away.
	server.listen({ port, host, backlog: 4_096 }, () => process.send?.('listening'));
} catch (error) {
	console.error(startFailure(error));
	process.exit(1);
}
