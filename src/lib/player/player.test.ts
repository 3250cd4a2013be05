import 'fake-indexeddb/auto';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { AnswerQueue } from './answer-queue.svelte';
import { LocalStore } from './local-store';

/** The server as far as the queue can tell: what it has, and whether it can be reached. */
class Server {
	has: { seq: number; value: unknown }[] = [];
	requests = 0;
	mode: 'up' | 'down' | 'full' | 'ended' = 'up';

	answer = async (_path: string, init: RequestInit): Promise<Response> => {
		this.requests++;
		if (this.mode === 'down') throw new TypeError('network');
		if (this.mode === 'full')
			return Response.json({ code: 'not_saved_yet', message: 'Not saved yet.' }, { status: 503 });
		const { revisions } = JSON.parse(init.body as string) as { revisions: { seq: number; value: unknown }[] };
		const seqs = revisions.map((revision) => revision.seq);
		if (this.mode === 'ended')
			return Response.json({ code: 'after_end', message: 'Over.', seqs, at: 7 }, { status: 409 });
		this.has.push(...revisions);
		return Response.json({ seqs, at: 1_000 + this.has.length, kept: null });
	};
}

let server: Server;
let count = 0;
const place = () => ({ sittingId: `sitting-${count}`, epoch: 1 });
const given = (value: unknown) => ({
	questionId: 'q1',
	value: value as string,
	marked: false,
	struck: [],
	inViewMs: 1
});
const until = (check: () => boolean) => vi.waitFor(() => expect(check()).toBe(true), { timeout: 4_000 });

beforeEach(() => {
	count++;
	server = new Server();
	vi.stubGlobal('fetch', server.answer);
	vi.stubGlobal('addEventListener', () => {});
	vi.stubGlobal('removeEventListener', () => {});
});

describe('the answer queue', () => {
	it('sends each once, in order, and knows when it was saved', async () => {
		const queue = new AnswerQueue(await LocalStore.open(), place());
		for (const value of ['a', 'b', 'c']) await queue.put(given(value));
		await until(() => queue.waiting === 0);
		expect(server.has.map((one) => [one.seq, one.value])).toEqual([
			[1, 'a'],
			[2, 'b'],
			[3, 'c']
		]);
		expect(queue.savedAt).toBeGreaterThan(1_000);
		queue.stop();
	});

	it('keeps what a dead line does not take, goes on by itself, and loses nothing', async () => {
		const queue = new AnswerQueue(await LocalStore.open(), place());
		server.mode = 'down';
		for (const value of ['a', 'b']) await queue.put(given(value));
		await until(() => queue.trouble?.code === 'line_down');
		expect(queue.waiting).toBe(2);
		server.mode = 'full';
		await until(() => queue.trouble?.code === 'not_saved_yet');
		server.mode = 'up';
		await until(() => queue.waiting === 0);
		expect(queue.trouble).toBeNull();
		expect(server.has.map((one) => one.value)).toEqual(['a', 'b']);
		queue.stop();
	});

	it('hands over to the next page what this one could not send', async () => {
		server.mode = 'down';
		const before = new AnswerQueue(await LocalStore.open(), place());
		await before.put(given('a'));
		before.stop();
		server.mode = 'up';
		const store = await LocalStore.open();
		await store.startAfter(place(), 0);
		expect((await store.waiting(place())).map((one) => one.value)).toEqual(['a']);
		const after = new AnswerQueue(store, place());
		await after.flush();
		await after.put(given('b'));
		await until(() => after.waiting === 0);
		expect(server.has.map((one) => one.seq)).toEqual([1, 2]);
		after.stop();
	});

	it('tells the candidate once of answers that are kept without counting, and sends them no more', async () => {
		const queue = new AnswerQueue(await LocalStore.open(), place());
		server.mode = 'ended';
		await queue.put(given('late'));
		await until(() => queue.keptNote !== null && queue.waiting === 0);
		const { requests } = server;
		await queue.flush();
		expect(server.requests).toBe(requests);
		queue.stop();
	});

	it('tells a long silence in several requests', async () => {
		const queue = new AnswerQueue(await LocalStore.open(), place());
		server.mode = 'down';
		for (let i = 0; i < 450; i++) await queue.put(given(String(i)));
		server.mode = 'up';
		const { requests } = server;
		await queue.flush();
		await until(() => queue.waiting === 0);
		expect(server.has.map((one) => Number(one.value))).toEqual(Array.from({ length: 450 }, (_, i) => i));
		expect(server.requests - requests).toBeGreaterThanOrEqual(3);
		queue.stop();
	});
});

describe('the local store', () => {
	it('gives two tabs different numbers, above what the server knows', async () => {
		const [one, two] = [await LocalStore.open(), await LocalStore.open()];
		await one.startAfter(place(), 40);
		const drawn = await Promise.all([one, two, one, two].map((store, i) => store.add(place(), given(String(i)))));
		expect(drawn.map((revision) => revision.seq).sort()).toEqual([41, 42, 43, 44]);
		await two.startAfter(place(), 10);
		expect((await one.add(place(), given('x'))).seq).toBe(45);
	});

	it('keeps candidates who share a machine apart', async () => {
		const store = await LocalStore.open();
		const other = { sittingId: 'somebody else', epoch: 1 };
		await store.add(place(), given('mine'));
		await store.add(other, given('theirs'));
		expect((await store.waiting(place())).map((one) => one.value)).toEqual(['mine']);
		await store.remove(place(), [1]);
		expect(await store.waiting(place())).toEqual([]);
		expect((await store.waiting(other)).map((one) => one.value)).toEqual(['theirs']);
	});

	it('goes on in memory where the browser refuses storage, and says so', async () => {
		vi.stubGlobal('indexedDB', {
			open: () => {
				throw new DOMException('refused', 'SecurityError');
			}
		});
		const store = await LocalStore.open();
		vi.unstubAllGlobals();
		expect(store.isDurable).toBe(false);
		await store.startAfter(place(), 3);
		expect((await store.add(place(), given('a'))).seq).toBe(4);
		await store.remove(place(), [4]);
		expect(await store.waiting(place())).toEqual([]);
	});
});
