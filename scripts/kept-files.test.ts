import { mkdirSync, mkdtempSync, rmSync, writeFileSync } from 'node:fs';
import { createServer, request, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { tmpdir } from 'node:os';
import { join } from 'node:path';
import { brotliCompressSync, brotliDecompressSync, gunzipSync, gzipSync } from 'node:zlib';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { keptFiles } from './kept-files.mjs';

const SCRIPT = 'export const quay = 1;\n'.repeat(50);
let [dir, server, port] = ['', null as Server | null, 0];

beforeAll(async () => {
	dir = mkdtempSync(join(tmpdir(), 'otium-kept-'));
	const shown = join(dir, 'shown');
	mkdirSync(join(shown, 'chunks'), { recursive: true });
	writeFileSync(join(dir, 'secret.js'), 'no');
	writeFileSync(join(shown, 'chunks/a.js'), SCRIPT);
	writeFileSync(join(shown, 'chunks/a.js.br'), brotliCompressSync(SCRIPT));
	writeFileSync(join(shown, 'chunks/a.js.gz'), gzipSync(SCRIPT));
	writeFileSync(join(shown, 'chunks/a.woff2'), 'font');
	writeFileSync(join(shown, 'chunks/notes.txt'), 'of no type that is known');
	const send = keptFiles(shown, '/_app/immutable');
	server = createServer((request, response) => {
		if (!send(request, response)) response.writeHead(404).end('others');
	});
	await new Promise<void>((resolve) => server!.listen(0, '127.0.0.1', resolve));
	port = (server.address() as AddressInfo).port;
});
afterAll(() => {
	server!.close();
	rmSync(dir, { recursive: true });
});

/** The path as it is written: `fetch` would mend it. */
function ask(path: string, headers: Record<string, string> = {}, method = 'GET') {
	return new Promise<{ status: number; headers: Record<string, unknown>; body: Buffer }>((resolve, reject) => {
		const asked = request({ port, path, method, headers }, (response) => {
			const parts: Buffer[] = [];
			response.on('data', (part: Buffer) => parts.push(part));
			response.on('end', () =>
				resolve({ status: response.statusCode!, headers: response.headers, body: Buffer.concat(parts) })
			);
		});
		asked.on('error', reject).end();
	});
}
const A = '/_app/immutable/chunks/a.js';

describe('files of the built application', () => {
	it.each([
		['br', 'gzip, deflate, br', brotliDecompressSync],
		['gzip', 'gzip', gunzipSync],
		[undefined, 'deflate', (body: Buffer) => body],
		[undefined, '', (body: Buffer) => body]
	])('come packed as %s for whoever takes %s, for good', async (encoding, takes, unpack) => {
		for (let time = 0; time < 2; time++) {
			const { status, headers, body } = await ask(`${A}?v=1`, { 'accept-encoding': takes });
			expect(status).toBe(200);
			expect(unpack(body).toString()).toBe(SCRIPT);
			expect(headers).toMatchObject({
				'content-type': 'text/javascript; charset=utf-8',
				'content-length': String(body.length),
				'cache-control': 'public,max-age=31536000,immutable',
				vary: 'accept-encoding'
			});
			expect(headers['content-encoding']).toBe(encoding);
		}
	});

	it('a question about a file is answered without it', async () => {
		const { status, headers, body } = await ask(A, {}, 'HEAD');
		expect([status, headers['content-length'], body.length]).toEqual([200, String(SCRIPT.length), 0]);
	});

	it.each([
		['what is not there', '/_app/immutable/chunks/b.js', {}, 'GET'],
		['what lies outside', '/_app/immutable/../secret.js', {}, 'GET'],
		['what lies outside, in other signs', '/_app/immutable/%2e%2e/secret.js', {}, 'GET'],
		['a folder', '/_app/immutable/chunks', {}, 'GET'],
		['what is packed already, by its own name', `${A}.br`, {}, 'GET'],
		['what has no type', '/_app/immutable/chunks/notes.txt', {}, 'GET'],
		['a part of a file', A, { range: 'bytes=0-3' }, 'GET'],
		['what is sent', A, {}, 'POST'],
		['another path', '/chunks/a.js', {}, 'GET']
	])('leaves to others: %s', async (_, path, headers, method) => {
		expect(await ask(path, headers, method)).toMatchObject({ status: 404 });
	});
});
