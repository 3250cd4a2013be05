import { parentPort } from 'node:worker_threads';

/** What a thread can be asked to do, by name. Input and result are data alone: functions do not reach another thread. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- each task has an input of its own.
export type Tasks = Record<string, (input: any) => unknown>;

export type Asked = { task: string; input: unknown };
export type Answered = { isReady: true } | { result: unknown } | { failed: { name: string; message: string } };

/** In the thread: does what it is asked, one task after the other. */
export function offer(tasks: Tasks): void {
	const port = parentPort!;
	const answer = (answered: Answered) => port.postMessage(answered);
	port.on('message', ({ task, input }: Asked) => {
		void (async () => {
			try {
				answer({ result: await tasks[task](input) });
			} catch (error) {
				const { name, message } = error as Error;
				answer({ failed: { name, message } });
			}
		})();
	});
	answer({ isReady: true });
}
