import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { Threads, type ThreadKind } from '.';
import type { Trying } from '../testing/trying';

const TRYING: ThreadKind<Trying> = { entry: 'src/lib/server/testing/trying.ts', memoryMb: 64 };

let threads: Threads;
beforeEach(() => (threads = new Threads()));
afterEach(() => threads.close());

const ask = <K extends keyof Trying>(task: K, input: Parameters<Trying[K]>[0], deadlineMs = 20_000) =>
	threads.run(TRYING, task, input, deadlineMs);

describe('a thread', () => {
	it('answers one task after the other, in the order in which they were asked', async () => {
		const answers: number[] = [];
		await Promise.all([3, 1, 2].map(async (n) => answers.push(await ask('say', n))));
		expect(answers).toEqual([3, 1, 2]);
	});

	it('that never ends is stopped, and the next task has a new one', async () => {
		await ask('say', 0);
		const began = performance.now();
		const endless = ask('forever', null, 300);
		const next = ask('say', 7);
		await expect(endless).rejects.toMatchObject({ name: 'ThreadError', code: 'too_long' });
		expect(await next).toBe(7);
		// The event loop was free meanwhile: nothing here waited for a thread that can't be waited for.
		expect(performance.now() - began).toBeGreaterThanOrEqual(300);
	});

	// Windows and macOS do not tell what another process had: there the clock counts.
	it.runIf(process.platform === 'linux')(
		'in a process of its own is given what it may take, however busy the machine is, and yet not for good',
		async () => {
			const kind = { ...TRYING, ownProcess: true };
			const run = <K extends keyof Trying>(task: K, input: Parameters<Trying[K]>[0], deadlineMs: number) =>
				threads.run(kind, task, input, deadlineMs);
			await run('say', 0, 20_000);
			await expect(run('wait', 900, 300)).resolves.toBeUndefined();
			await expect(run('wait', 60_000, 100)).rejects.toMatchObject({ code: 'too_long' });
			await expect(run('forever', null, 200)).rejects.toMatchObject({ code: 'too_long' });
			expect(await run('say', 3, 20_000)).toBe(3);
		}
	);

	it('is stopped when whoever asked waits no longer, and what nobody waits for is not begun', async () => {
		await ask('say', 0);
		const [stop, never] = [new AbortController(), new AbortController()];
		const endless = threads.run(TRYING, 'forever', null, 60_000, stop.signal);
		const queued = threads.run(TRYING, 'forever', null, 60_000, never.signal);
		const next = ask('say', 9);
		never.abort();
		setTimeout(() => stop.abort(), 50);
		await expect(endless).rejects.toMatchObject({ code: 'stopped' });
		await expect(queued).rejects.toMatchObject({ code: 'stopped' });
		expect(await next).toBe(9);
	});

	it('that takes more memory than it may is ended alone', async () => {
		await expect(ask('grow', null)).rejects.toMatchObject({ code: 'too_large' });
		expect(await ask('say', 8)).toBe(8);
	});

	it('says what a task failed of, and does the next in the same thread', async () => {
		const first = await ask('which', null);
		await expect(ask('fail', 'no such star')).rejects.toThrow('no such star');
		expect(await ask('which', null)).toBe(first);
	});

	it('lets only so many wait, and tells the others at once', async () => {
		const asked = await Promise.allSettled(Array.from({ length: 30 }, (_, n) => ask('say', n)));
		const refused = asked.filter((one) => one.status === 'rejected');
		expect(refused.length).toBe(10);
		expect(refused.every((one) => one.reason.code === 'too_many')).toBe(true);
	});

	it('does nothing more once the house is closed', async () => {
		await threads.close();
		await expect(ask('say', 1)).rejects.toMatchObject({ code: 'failed' });
	});
});
