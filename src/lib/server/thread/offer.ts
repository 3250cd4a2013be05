import { parentPort } from 'node:worker_threads';

/** What a thread can be asked to do, by name. Input and result are data alone: functions do not reach another thread. */
// eslint-disable-next-line @typescript-eslint/no-explicit-any -- each task has an input of its own.
export type Tasks = Record<string, (input: any) => unknown>;

export type Asked = { task: string; input: unknown };
export type Answered = { isReady: true } | { result: unknown } | { failed: { name: string; message: string } };

/** In the thread: does what it is asked, one task after the other. */
export function offer(tasks: Tasks): void {
	const answer = (answered: Answered) => (parentPort ? parentPort.postMessage(answered) : process.send!(answered));
	const onAsked = ({ task, input }: Asked) => {
		void (async () => {
			try {
				answer({ result: await tasks[task](input) });
			} catch (error) {
				const { name, message } = error as Error;
				answer({ failed: { name, message } });
			}
		})();
	};
	if (parentPort) parentPort.on('message', onAsked);
	else process.on('message', onAsked);
	answer({ isReady: true });
}
