import { createServer, type Server } from 'node:http';
import type { AddressInfo } from 'node:net';
import { afterEach, expect, it } from 'vitest';
import { runCrowd } from '.';

let server: Server;
afterEach(() => new Promise((done) => server.close(done)));

/** A server that lets everybody work, and answers what they save as the test says; what was saved. */
async function serve(saved: (nth: number) => { status: number; body: object }) {
	const paths: string[] = [];
	const questions = Array.from({ length: 8 }, (_, i) => ({ id: `q${i}`, kind: 'true_false' }));
	server = createServer((request, response) => {
		const path = request.url!.replace('/sit/api/', '');
		let text = '';
		request.on('data', (data) => (text += data));
		request.on('end', () => {
			paths.push(path);
			const nth = paths.filter((one) => one === 'answers').length;
			const answers = {
				knock: { note: 'n' },
				picture: { picture: { state: 'working', session: { roomWaits: false } } },
				paper: { order: questions.map(({ id }) => id), questions, answers: [], lastSeq: 0 }
			} as Record<string, object>;
			const { status, body } = path === 'answers' ? saved(nth) : { status: 200, body: answers[path] ?? {} };
			const seqs = text ? (JSON.parse(text).revisions ?? []).map((one: { seq: number }) => one.seq) : [];
			response.writeHead(status, { 'content-type': 'application/json' }).end(JSON.stringify({ seqs, ...body }));
		});
	}).listen(0);
	await new Promise((listening) => server.once('listening', listening));
	return { url: `http://localhost:${(server.address() as AddressInfo).port}`, paths };
}
const ONE = { code: 'AB12', candidates: [{ number: 'CR-1', family: 'Sailor' }], seed: 1, tempo: 0, promptly: true };

it('a simulated candidate answers every question once and hands in', async () => {
	const { url, paths } = await serve(() => ({ status: 200, body: {} }));
	expect(await runCrowd({ ...ONE, url })).toMatchObject({ handedIn: 1, saved: 8, refused: 0 });
	expect(paths.filter((path) => path === 'answers').length).toBe(8);
});

it.each(['after_end', 'freed_device'])('writes nothing more once the server says %s', async (code) => {
	const { url, paths } = await serve((nth) => (nth < 3 ? { status: 200, body: {} } : { status: 409, body: { code } }));
	expect(await runCrowd({ ...ONE, url })).toMatchObject({ handedIn: 0, saved: 2, refused: 1 });
	expect(paths.filter((path) => path === 'answers').length).toBe(3);
	expect(paths).not.toContain('hand-in');
});

it('goes on after a pause, in which answers are kept and do not count', async () => {
	const { url } = await serve((nth) =>
		nth === 2 ? { status: 409, body: { code: 'on_hold' } } : { status: 200, body: {} }
	);
	expect(await runCrowd({ ...ONE, url })).toMatchObject({ handedIn: 1, saved: 7, refused: 1 });
});
