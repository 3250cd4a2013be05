import 'fake-indexeddb/auto';
import { openDB } from 'idb';
import { beforeEach, describe, expect, it } from 'vitest';
import { Box } from './box';
import { LocalStore } from './local-store';

const KEY = btoa('k'.repeat(32));
const OTHER = btoa('o'.repeat(32));
let count = 0;
const place = () => ({ sittingId: `stored-${count}`, epoch: 1 });
const content = (questionId: string, value: string) => ({ questionId, value, marked: false, struck: [], inViewMs: 5 });
beforeEach(() => void count++);

/** Everything that lies on the device, as somebody with the disk would find it. */
async function onDisk(): Promise<string> {
	const db = await openDB('otium-player');
	const all = await Promise.all(['queue', 'paper', 'given'].map((name) => db.getAll(name)));
	db.close();
	return JSON.stringify(
		all.flat().filter((row) => row.sittingId === place().sittingId),
		(_, value) =>
			value instanceof ArrayBuffer || ArrayBuffer.isView(value)
				? Buffer.from(value as ArrayBuffer).toString('latin1')
				: value
	);
}

describe('what lies on the device', () => {
	it('comes back as it was given, in order, under the same key', async () => {
		const store = await LocalStore.open(KEY);
		await store.add(place(), content('q1', 'Starboard'));
		await store.add(place(), content('q2', 'Port'));
		await store.add(place(), content('q1', 'Port'));
		const again = await LocalStore.open(KEY);
		expect((await again.waiting(place())).map((one) => [one.seq, one.questionId, one.value])).toEqual([
			[1, 'q1', 'Starboard'],
			[2, 'q2', 'Port'],
			[3, 'q1', 'Port']
		]);
		await again.remove(place(), [1, 2]);
		expect((await again.waiting(place())).map((one) => one.seq)).toEqual([3]);
	});

	it('says nothing to whoever has the disk and not the key', async () => {
		const store = await LocalStore.open(KEY);
		await store.add(place(), content('q1', 'Starboard side'));
		await store.keepPaper(place(), { questions: ['Which light is green?'] });
		const found = await onDisk();
		expect(found.length).toBeGreaterThan(100);
		for (const word of ['Starboard', 'green', 'marked', 'inViewMs']) expect(found).not.toContain(word);
		const stranger = await LocalStore.open(OTHER);
		expect(await stranger.waiting(place())).toEqual([]);
		expect(await stranger.keptPaper(place())).toBeNull();
		// What it can't read it leaves where it is.
		expect(await (await LocalStore.open(KEY)).waiting(place())).toHaveLength(1);
	});

	it('is the paper with the answers as they stand, sent or not', async () => {
		const store = await LocalStore.open(KEY);
		await store.keepPaper(place(), { questions: ['a'] });
		await store.add(place(), content('q1', 'first'));
		await store.add(place(), content('q1', 'second'));
		await store.remove(place(), [1, 2]);
		const kept = await (await LocalStore.open(KEY)).keptPaper<{ questions: string[] }>(place());
		expect(kept?.paper).toEqual({ questions: ['a'] });
		expect(kept?.given.map((one) => one.value)).toEqual(['second']);
	});

	it('goes with the hand-in, but for what the server does not have', async () => {
		const store = await LocalStore.open(KEY);
		await store.keepPaper(place(), { questions: [] });
		await store.add(place(), content('q1', 'late'));
		await store.forgetPaper(place());
		expect(await store.keptPaper(place())).toBeNull();
		expect(await store.waiting(place())).toHaveLength(1);
	});

	it('where the browser has no cryptography it is kept as it is, rather than not at all', async () => {
		const store = await LocalStore.open(null);
		await store.add(place(), content('q1', 'plain'));
		expect((await store.waiting(place()))[0].value).toBe('plain');
	});
});

describe('a seal', () => {
	it('is never the same twice, opens with its key, and not after a change', async () => {
		const box = (await Box.of(KEY))!;
		const [one, two] = [await box.seal({ a: 1 }), await box.seal({ a: 1 })];
		expect(Buffer.from(one.data).equals(Buffer.from(two.data))).toBe(false);
		expect(await box.open(one)).toEqual({ a: 1 });
		expect(await (await Box.of(OTHER))!.open(one)).toBeNull();
		new Uint8Array(one.data)[3] ^= 1;
		expect(await box.open(one)).toBeNull();
	});
});
