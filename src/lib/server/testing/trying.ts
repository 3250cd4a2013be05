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
	grow(_: null): never {
		const held: string[][] = [];
		for (;;) held.push(Array.from({ length: 10_000 }, (_, i) => `${i}`));
	}
};
export type Trying = typeof tasks;

offer(tasks);
