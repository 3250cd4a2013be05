import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import { Keeper, type Outcome } from './keeper.svelte';

beforeEach(() => void vi.useFakeTimers());
afterEach(() => void vi.useRealTimers());

/** A server that takes a while and does as it is told; what was entered when each request left. */
function kept(outcomes: Outcome[], takesMs = 50) {
	const sent: { text: string; leaving: boolean }[] = [];
	const form = { text: '' };
	const keeper = new Keeper(async (leaving) => {
		sent.push({ text: form.text, leaving });
		await new Promise((resolve) => setTimeout(resolve, takesMs));
		return outcomes.shift() ?? 'kept';
	});
	const enter = (text: string) => {
		form.text = text;
		keeper.touched();
	};
	return { keeper, sent, enter, texts: () => sent.map((one) => one.text) };
}

describe('what is kept as one goes', () => {
	it('goes when typing rests, once, and is unkept until the server has it', async () => {
		const { keeper, enter, texts } = kept([]);
		for (const text of ['T', 'Ti', 'Tides']) {
			enter(text);
			await vi.advanceTimersByTimeAsync(200);
		}
		expect(texts()).toEqual([]);
		await vi.advanceTimersByTimeAsync(220);
		expect(texts()).toEqual(['Tides']);
		expect([keeper.isUnkept, keeper.isKeeping]).toEqual([true, true]);
		await vi.advanceTimersByTimeAsync(60);
		expect([keeper.isUnkept, keeper.isKeeping]).toEqual([false, false]);
	});

	it('is one request at a time: what is entered meanwhile goes after it, and the last word arrives', async () => {
		const { keeper, enter, texts } = kept([], 1_000);
		enter('one');
		await vi.advanceTimersByTimeAsync(500);
		enter('two');
		await vi.advanceTimersByTimeAsync(800);
		expect(texts()).toEqual(['one']);
		await vi.advanceTimersByTimeAsync(2_000);
		expect(texts()).toEqual(['one', 'two']);
		expect(keeper.isUnkept).toBe(false);
	});

	it('is tried again when the line was down, and not again by itself when it was refused', async () => {
		const { keeper, enter, texts } = kept(['line_down', 'refused']);
		enter('sixty');
		await vi.advanceTimersByTimeAsync(600);
		expect([texts().length, keeper.isUnkept]).toEqual([1, true]);
		await vi.advanceTimersByTimeAsync(3_100);
		expect(texts().length).toBe(2);
		await vi.advanceTimersByTimeAsync(60_000);
		expect([texts().length, keeper.isUnkept]).toEqual([2, true]);
		enter('60');
		await vi.advanceTimersByTimeAsync(600);
		expect([texts().at(-1), keeper.isUnkept]).toEqual(['60', false]);
	});

	it('goes at once when the page is left, by a request that outlives it; and nothing goes when there is nothing', async () => {
		const page = new EventTarget();
		vi.stubGlobal('addEventListener', page.addEventListener.bind(page));
		vi.stubGlobal('removeEventListener', page.removeEventListener.bind(page));
		const { keeper, enter, sent } = kept([]);
		const stop = keeper.start();
		page.dispatchEvent(new Event('pagehide'));
		expect(sent).toEqual([]);
		enter('left in a hurry');
		page.dispatchEvent(new Event('pagehide'));
		expect(sent).toEqual([{ text: 'left in a hurry', leaving: true }]);
		await vi.advanceTimersByTimeAsync(1_000);
		enter('by a link');
		stop();
		expect(sent.at(-1)).toEqual({ text: 'by a link', leaving: false });
		enter('dropped');
		keeper.drop();
		await vi.advanceTimersByTimeAsync(1_000);
		expect(sent).toHaveLength(2);
		vi.unstubAllGlobals();
	});
});
