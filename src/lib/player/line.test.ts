import { afterEach, expect, it, vi } from 'vitest';
import type { SittingPicture } from '$core/room';
import { ServerClock } from '$ui/server-clock.svelte';
import { Line } from './line.svelte';

afterEach(() => vi.unstubAllGlobals());

const picture = (now: number, state: SittingPicture['state']) => ({ now, state }) as SittingPicture;

it('of two pictures the later one stays, in whatever order they come', async () => {
	const line = new Line(picture(1_000, 'at_door'), new ServerClock(1_000));
	// Both are asked for at once; the answer to the first comes last.
	const answers = [picture(3_000, 'working'), picture(2_000, 'let_in')];
	vi.stubGlobal('navigator', {});
	vi.stubGlobal('fetch', async (path: string) =>
		Response.json(path.includes('beat') ? { now: 3_000, next: 5_000 } : { picture: answers.shift() })
	);
	await line.refresh();
	expect(line.picture.state).toBe('working');
	await line.refresh();
	expect(line.picture).toMatchObject({ state: 'working', now: 3_000 });
});
