// Scripts, styles and fonts of the built application, out of memory: a class that opens its pages in the same minute asks
// for some thirty of them each, and to open and read a file costs several times as much as to send it.
import { readdirSync, readFileSync } from 'node:fs';
import { extname, join } from 'node:path';

const TYPES = /** @type {Record<string, string>} */ ({
	'.js': 'text/javascript; charset=utf-8',
	'.mjs': 'text/javascript; charset=utf-8',
	'.css': 'text/css; charset=utf-8',
	'.woff': 'font/woff',
	'.woff2': 'font/woff2',
	'.ttf': 'font/ttf'
});
/** The best first; what the build packed beside a file has its ending. */
const PACKINGS = [
	{ encoding: 'br', ending: '.br' },
	{ encoding: 'gzip', ending: '.gz' }
];
/** Their names change with their contents, so that nobody ever asks again for what they have. */
const HEADERS = { 'cache-control': 'public,max-age=31536000,immutable', 'x-content-type-options': 'nosniff' };

/**
 * Answers requests for files of a folder; each is read once, when it is first asked for. What is not there, and what asks
 * for anything but a whole file, is left to others.
 * @param {string} folder whose files never change while the server runs
 * @param {string} under the path that they are asked for by, `/_app/immutable`
 * @returns {(request: import('node:http').IncomingMessage, response: import('node:http').ServerResponse) => boolean} whether
 *   it has answered
 */
export function keptFiles(folder, under) {
	const names = new Set(readdirSync(folder, { recursive: true, encoding: 'utf8' }));
	/** @type {Map<string, Buffer>} */
	const kept = new Map();
	/** @param {string} name */
	const bytesOf = (name) => {
		const known = kept.get(name) ?? readFileSync(join(folder, name));
		kept.set(name, known);
		return known;
	};
	return (request, response) => {
		const { method, url = '', headers } = request;
		if ((method !== 'GET' && method !== 'HEAD') || headers.range || !url.startsWith(`${under}/`)) return false;
		const [name] = url.slice(under.length + 1).split('?', 1);
		const type = TYPES[extname(name)];
		if (!type || !names.has(name)) return false;
		const packing = PACKINGS.find(
			({ encoding, ending }) => headers['accept-encoding']?.includes(encoding) && names.has(name + ending)
		);
		const body = bytesOf(name + (packing?.ending ?? ''));
		const packed = packing ? { 'content-encoding': packing.encoding } : {};
		const about = { 'content-type': type, 'content-length': body.length, vary: 'accept-encoding' };
		response.writeHead(200, { ...HEADERS, ...about, ...packed });
		response.end(method === 'HEAD' ? undefined : body);
		return true;
	};
}
