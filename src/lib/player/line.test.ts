import { afterEach, beforeEach, expect, it, vi } from 'vitest';
import type { SittingPicture } from '$core/room';
import { ServerClock } from '$ui/server-clock.svelte';
import { Line } from './line.svelte';

/** What a browser gives a page to listen with, driven by hand. */
class Source {
	static made: Source[] = [];
	onopen = () => {};
	onerror = () => {};
	isClosed = false;
	#listeners = new Map<string, (event: { data: string }) => void>();
	constructor(readonly address: string) {
		Source.made.push(this);
	}
	addEventListener(name: string, listener: (event: { data: string }) => void) {
		this.#listeners.set(name, listener);
	}
	tell(name: string, data: unknown) {
		this.#listeners.get(name)!({ data: JSON.stringify(data) });
	}
	close() {
		this.isClosed = true;
	}
}

const picture = (now: number, state: SittingPicture['state']) => ({ now, state }) as SittingPicture;
const TURN_MS = 5_000;
/** What the server was asked, in order, and how it answers a beat. */
let asked: string[] = [];
let onBeat: () => Response;

beforeEach(() => {
	[asked, Source.made] = [[], []];
	onBeat = () => Response.json({ now: 3_000, next: TURN_MS });
	vi.useFakeTimers();
	vi.stubGlobal('navigator', {});
	// A browser that keeps no key signs nothing, so that nothing here waits for it.
	vi.stubGlobal('indexedDB', undefined);
	vi.stubGlobal('EventSource', Source);
	vi.stubGlobal('fetch', async (path: string) => {
		asked.push(path);
		return onBeat();
	});
});
afterEach(() => {
	vi.useRealTimers();
	vi.unstubAllGlobals();
});

/** A line that is open. */
async function opened() {
	const line = new Line(picture(1_000, 'working'), new ServerClock(1_000));
	const stop = line.open();
	await vi.advanceTimersByTimeAsync(0);
	Source.made[0].onopen();
	return { line, stop };
}

it('of two pictures the later one stays, in whatever order they come', async () => {
	const line = new Line(picture(1_000, 'at_door'), new ServerClock(1_000));
	// Both are asked for at once; the answer to the first comes last.
	const answers = [picture(3_000, 'working'), picture(2_000, 'let_in')];
	vi.stubGlobal('fetch', async (path: string) =>
		Response.json(path.includes('beat') ? { now: 3_000, next: TURN_MS } : { picture: answers.shift() })
	);
	await line.refresh();
	expect(line.picture.state).toBe('working');
	await line.refresh();
	expect(line.picture).toMatchObject({ state: 'working', now: 3_000 });
});

it('one that was cut is opened anew, and asks for nothing else', async () => {
	const { stop } = await opened();
	Source.made[0].onerror();
	await vi.advanceTimersByTimeAsync(3_000);
	expect(Source.made).toHaveLength(2);
	expect(Source.made[0].isClosed).toBe(true);
	Source.made[1].onopen();
	expect(asked).toEqual([]);
	stop();
});

it('a whole room that was cut comes back over a while', async () => {
	const lines = await Promise.all(Array.from({ length: 40 }, opened));
	for (const source of [...Source.made]) source.onerror();
	const after = [];
	for (const ms of [1_499, 750, 751]) {
		await vi.advanceTimersByTimeAsync(ms);
		after.push(Source.made.length - 40);
	}
	expect(after[0]).toBe(0);
	expect(after[1]).toBeGreaterThan(5);
	expect(after[1]).toBeLessThan(35);
	expect(after[2]).toBe(40);
	lines.forEach(({ stop }) => stop());
});

it('says that it is there a whole turn after its line was opened, and not before', async () => {
	const { stop } = await opened();
	await vi.advanceTimersByTimeAsync(4_000);
	Source.made[0].onerror();
	await vi.advanceTimersByTimeAsync(900);
	expect(asked).toEqual([]);
	await vi.advanceTimersByTimeAsync(2_100);
	Source.made[1].onopen();
	const before = asked.length;
	await vi.advanceTimersByTimeAsync(TURN_MS - 1);
	expect(asked).toHaveLength(before);
	await vi.advanceTimersByTimeAsync(1);
	expect(asked.slice(before)).toEqual(['/sit/api/beat']);
	stop();
});

it('one that is refused asks why: a freed device learns it and leaves it there', async () => {
	const { line, stop } = await opened();
	Source.made[0].onerror();
	await vi.advanceTimersByTimeAsync(3_000);
	onBeat = () => Response.json({ code: 'second_device', message: '', instead: '' }, { status: 409 });
	Source.made[1].onerror();
	await vi.advanceTimersByTimeAsync(3_000);
	expect(line.isFreed).toBe(true);
	expect(Source.made).toHaveLength(2);
	stop();
});

it('a server that is away is told, and heard again', async () => {
	const { line, stop } = await opened();
	onBeat = () => {
		throw new TypeError('failed to fetch');
	};
	Source.made[0].onerror();
	for (let tries = 1; tries <= 3; tries++) {
		await vi.advanceTimersByTimeAsync(3_000);
		Source.made.at(-1)!.onerror();
		await vi.advanceTimersByTimeAsync(0);
		expect(line.downSince).not.toBeNull();
	}
	await vi.advanceTimersByTimeAsync(3_000);
	Source.made.at(-1)!.onopen();
	Source.made.at(-1)!.tell('picture', picture(9_000, 'working'));
	expect(line.downSince).toBeNull();
	stop();
});
