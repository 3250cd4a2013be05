import { threadId } from 'node:worker_threads';
import { offer } from '../thread';

/** A thread for tests: it answers, fails, never ends or grows, as it is asked. */
const tasks = {
	say: (n: number) => n,
	which: (_: null) => threadId,
	fail(words: string): never {
		throw new Error(words);
	},
	forever(_: null): never {
		for (;;);
	},
	/** As on a machine that is busy with other things: time goes by, and nothing is done. */
	wait(ms: number): void {
		Atomics.wait(new Int32Array(new SharedArrayBuffer(4)), 0, 0, ms);
	},
	grow(_: null): never {
		const held: string[][] = [];
		for (;;) held.push(Array.from({ length: 10_000 }, (_, i) => `${i}`));
	}
};
export type Trying = typeof tasks;

offer(tasks);
