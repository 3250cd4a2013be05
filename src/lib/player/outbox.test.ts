import 'fake-indexeddb/auto';
import fc from 'fast-check';
import { openDB } from 'idb';
import { beforeEach, describe, expect, it, vi } from 'vitest';
import { LocalStore } from './local-store';
import { cut, lastOfEach } from './batch';
import { Outbox } from './outbox.svelte';

/** The server as far as the outbox can tell: what it has, and whether it can be reached. */
class Server {
	has: { seq: number; value: unknown }[] = [];
	requests = 0;
	mode: 'up' | 'down' | 'full' | 'ended' = 'up';
	/** How many bytes it reads at once. */
	reads = Infinity;
	largest = 0;
	/** A question whose answers it can't take. */
	refuses: string | null = null;

	answer = async (_path: string, init: RequestInit): Promise<Response> => {
		this.requests++;
		const size = (init.body as string).length;
		if (this.mode === 'down') throw new TypeError('network');
		if (this.mode === 'full')
			return Response.json({ code: 'not_saved_yet', message: 'Not saved yet.' }, { status: 503 });
		if (size > this.reads) return Response.json({ code: 'too_large', message: 'Too much.' }, { status: 413 });
		this.largest = Math.max(this.largest, size);
		const { revisions } = JSON.parse(init.body as string) as {
			revisions: { seq: number; questionId: string; value: unknown }[];
		};
		if (revisions.some((one) => one.questionId === this.refuses))
			return Response.json({ code: 'unfitting_answer', message: 'It does not fit.' }, { status: 422 });
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
const given = (value: unknown, questionId = `q-${value}`) => ({
	questionId,
	value: value as string,
	marked: false,
	struck: [],
	inViewMs: 1
});
const until = (check: () => boolean) => vi.waitFor(() => expect(check()).toBe(true), { timeout: 8_000 });

beforeEach(() => {
	count++;
	server = new Server();
	vi.stubGlobal('fetch', server.answer);
	vi.stubGlobal('addEventListener', () => {});
	vi.stubGlobal('removeEventListener', () => {});
});

describe('the outbox', () => {
	it('sends each once, in order, and knows when it was saved', async () => {
		const outbox = new Outbox(await LocalStore.open(), place());
		for (const value of ['a', 'b', 'c']) await outbox.put(given(value));
		await until(() => outbox.waiting === 0);
		expect(server.has.map((one) => [one.seq, one.value])).toEqual([
			[1, 'a'],
			[2, 'b'],
			[3, 'c']
		]);
		expect(outbox.savedAt).toBeGreaterThan(1_000);
		outbox.stop();
	});

	it('keeps what a dead line does not take, goes on by itself, and loses nothing', async () => {
		const outbox = new Outbox(await LocalStore.open(), place());
		server.mode = 'down';
		for (const value of ['a', 'b']) await outbox.put(given(value));
		await until(() => outbox.trouble?.code === 'line_down');
		expect(outbox.waiting).toBe(2);
		server.mode = 'full';
		await until(() => outbox.trouble?.code === 'not_saved_yet');
		server.mode = 'up';
		void outbox.flush();
		await until(() => outbox.waiting === 0);
		expect(outbox.trouble).toBeNull();
		expect(server.has.map((one) => one.value)).toEqual(['a', 'b']);
		outbox.stop();
	});

	it('hands over to the next page what this one could not send', async () => {
		server.mode = 'down';
		const before = new Outbox(await LocalStore.open(), place());
		await before.put(given('a'));
		before.stop();
		server.mode = 'up';
		const store = await LocalStore.open();
		await store.startAfter(place(), 0);
		expect((await store.waiting(place())).map((one) => one.value)).toEqual(['a']);
		const after = new Outbox(store, place());
		await after.flush();
		await after.put(given('b'));
		await until(() => after.waiting === 0);
		expect(server.has.map((one) => one.seq)).toEqual([1, 2]);
		after.stop();
	});

	it('tells the candidate once of answers that are kept without counting, and sends them no more', async () => {
		const outbox = new Outbox(await LocalStore.open(), place());
		server.mode = 'ended';
		await outbox.put(given('late'));
		await until(() => outbox.keptNote !== null && outbox.waiting === 0);
		const { requests } = server;
		await outbox.flush();
		expect(server.requests).toBe(requests);
		outbox.stop();
	});

	it('sends of several unsent revisions of one question the last, under its own number', async () => {
		const outbox = new Outbox(await LocalStore.open(), place());
		server.mode = 'down';
		for (const value of ['a', 'ab', 'abc']) await outbox.put(given(value, 'essay'));
		await outbox.put(given('B', 'q2'));
		server.mode = 'up';
		void outbox.flush();
		await until(() => outbox.waiting === 0);
		expect(server.has.map((one) => [one.seq, one.value])).toEqual([
			[3, 'abc'],
			[4, 'B']
		]);
		expect(await (await LocalStore.open()).waiting(place())).toEqual([]);
		outbox.stop();
	});

	it('gets a long essay through that was written on for an hour without a line', async () => {
		const outbox = new Outbox(await LocalStore.open(), place());
		server.mode = 'down';
		const before = 'A vessel under way by night shall show. '.repeat(140);
		for (let i = 0; i < 200; i++) await outbox.put(given(`${before}${'word '.repeat(i)}`, 'essay'));
		await outbox.put(given('B', 'q2'));
		server.mode = 'up';
		void outbox.flush();
		await until(() => outbox.waiting === 0);
		expect(server.largest).toBeLessThan(1024 * 1024);
		expect(server.has.at(-1)!.value).toBe('B');
		outbox.stop();
	}, 20_000);

	it('goes on in halves when the server reads less at once than it thinks', async () => {
		const outbox = new Outbox(await LocalStore.open(), place());
		server.mode = 'down';
		for (let i = 0; i < 30; i++) await outbox.put(given('x'.repeat(2_000) + i, `q${i}`));
		server.reads = 10_000;
		server.mode = 'up';
		void outbox.flush();
		await until(() => outbox.waiting === 0);
		expect(server.has).toHaveLength(30);
		outbox.stop();
	});

	it('puts aside what the server will never take, says which, and sends the others', async () => {
		const outbox = new Outbox(await LocalStore.open(), place());
		server.refuses = 'odd';
		server.mode = 'down';
		for (const question of ['q1', 'odd', 'q3']) await outbox.put(given('v', question));
		server.mode = 'up';
		void outbox.flush();
		await until(() => outbox.waiting === 0);
		expect(server.has.map((one) => one.seq)).toEqual([1, 3]);
		expect(outbox.aside.map((one) => [one.questionId, one.problem.code])).toEqual([['odd', 'unfitting_answer']]);
		server.refuses = null;
		await outbox.put(given('again', 'odd'));
		await until(() => outbox.waiting === 0 && outbox.aside.length === 0);
		expect(server.has.at(-1)!.value).toBe('again');
		outbox.stop();
	});

	it('does not take the sign-in page of a network for the server', async () => {
		const outbox = new Outbox(await LocalStore.open(), place());
		vi.stubGlobal('fetch', async () => Response.json({ hello: 'guest' }));
		await outbox.put(given('a'));
		await until(() => outbox.trouble?.code === 'unreadable');
		expect([outbox.waiting, outbox.savedAt]).toEqual([1, null]);
		outbox.stop();
	});

	it('waits from the first moment, before the device has kept it', async () => {
		const outbox = new Outbox(await LocalStore.open(), place());
		const put = outbox.put(given('a'));
		expect(outbox.waiting).toBe(1);
		await put;
		outbox.stop();
	});

	it('tells a long silence in several requests', async () => {
		const outbox = new Outbox(await LocalStore.open(), place());
		server.mode = 'down';
		for (let i = 0; i < 450; i++) await outbox.put(given(String(i)));
		server.mode = 'up';
		const { requests } = server;
		void outbox.flush();
		await until(() => outbox.waiting === 0);
		expect(server.has.map((one) => Number(one.value))).toEqual(Array.from({ length: 450 }, (_, i) => i));
		expect(server.requests - requests).toBeGreaterThanOrEqual(3);
		outbox.stop();
	});
});

describe('what goes into one request', () => {
	it('is never nothing, never more than fits, and in order', () => {
		const sized = fc.array(fc.integer({ min: 0, max: 400 }), { minLength: 1, maxLength: 40 });
		fc.assert(
			fc.property(sized, fc.integer({ min: 1, max: 20 }), fc.integer({ min: 10, max: 900 }), (sizes, most, bytes) => {
				const rows = sizes.map((size, i) => `${i} ${'x'.repeat(size)}`);
				const batch = cut(rows, most, bytes);
				expect(batch).toEqual(rows.slice(0, batch.length));
				expect(batch.length).toBeGreaterThanOrEqual(1);
				expect(batch.length).toBeLessThanOrEqual(most);
				const size = batch.reduce((sum, row) => sum + JSON.stringify(row).length, 0);
				if (batch.length > 1) expect(size).toBeLessThanOrEqual(bytes);
			})
		);
	});

	it('covers every number exactly once, under the last one of its question', () => {
		const questions = fc.array(fc.constantFrom('a', 'b', 'c'), { maxLength: 30 });
		fc.assert(
			fc.property(questions, (asked) => {
				const revisions = asked.map((questionId, i) => ({ ...given(i, questionId), value: null, seq: i + 1 }));
				const { last, covered } = lastOfEach(revisions);
				const all = last.flatMap((one) => [one.seq, ...covered.get(one.seq)!]).sort((a, b) => a - b);
				expect(all).toEqual(revisions.map((one) => one.seq));
				expect(new Set(last.map((one) => one.questionId)).size).toBe(last.length);
				for (const one of last) for (const seq of covered.get(one.seq)!) expect(seq).toBeLessThan(one.seq);
			})
		);
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

	it('goes on in memory when the device fails in mid-exam, above every number it may have drawn', async () => {
		const store = await LocalStore.open();
		const outbox = new Outbox(store, place());
		await outbox.put(given('a'));
		await until(() => outbox.waiting === 0);
		vi.spyOn(IDBDatabase.prototype, 'transaction').mockImplementation(() => {
			throw new DOMException('The database connection is closing.', 'InvalidStateError');
		});
		await outbox.put(given('b'));
		vi.restoreAllMocks();
		await until(() => outbox.waiting === 0);
		expect([outbox.isDurable, store.isDurable]).toEqual([false, false]);
		expect(server.has.map((one) => one.value)).toEqual(['a', 'b']);
		expect(server.has[1].seq).toBeGreaterThan(1_000);
		outbox.stop();
	});

	it('is not kept waiting by a tab of another version', async () => {
		const name = 'otium-player';
		await new Promise((gone) => (indexedDB.deleteDatabase(name).onsuccess = gone));
		const old = await openDB(name, 1, {
			upgrade(db) {
				db.createObjectStore('queue', { keyPath: 'seq' });
				db.createObjectStore('sequence', { keyPath: 'sittingId' });
			}
		});
		const store = await LocalStore.open();
		expect(store.isDurable).toBe(false);
		const outbox = new Outbox(store, place());
		await outbox.put(given('a'));
		await until(() => outbox.waiting === 0);
		old.close();
		await until(() => outbox.isDurable);
		await outbox.put(given('b'));
		await until(() => outbox.waiting === 0);
		expect(server.has.map((one) => one.seq)).toEqual([1, 2]);
		outbox.stop();
	});

	it('lets go of the device for a tab of a later version', async () => {
		const store = await LocalStore.open();
		const later = await openDB('otium-player', 4);
		expect(store.isDurable).toBe(false);
		expect((await store.add(place(), given('a'))).seq).toBeGreaterThan(0);
		later.close();
		await new Promise((gone) => (indexedDB.deleteDatabase('otium-player').onsuccess = gone));
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
