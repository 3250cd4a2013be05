import { fork } from 'node:child_process';
import { existsSync } from 'node:fs';
import { dirname, join } from 'node:path';
import { env } from 'node:process';
import { fileURLToPath } from 'node:url';
import { Worker } from 'node:worker_threads';
import type { Answered, Asked, Tasks } from './offer';
import { ownProcessorMs, processorMsOf } from './processor-time';

/** A kind of thread: where its part begins, from the project's folder, and what it may take. `T` is what it offers. */
export type ThreadKind<T extends Tasks> = {
	entry: string;
	memoryMb: number;
	/**
	 * It calls code that no thread can be stopped in, as libraries for pictures are: it runs in a process, which is killed.
	 * Nothing of the server's memory or environment is in it.
	 */
	ownProcess?: boolean;
	/** Keeps it apart from another kind with the same entry. */
	name?: string;
	/** More than these at once are refused; 20 unless told otherwise. */
	mostWaiting?: number;
	/** Never there: it carries the type. */
	offers?: T;
};

/** Why a task has no result: it took too long, needed too much memory, was stopped by whoever asked, or failed of itself. */
export class ThreadError extends Error {
	override readonly name = 'ThreadError';
	constructor(
		readonly code: 'too_long' | 'too_large' | 'too_many' | 'stopped' | 'failed',
		message: string
	) {
		super(message);
	}
}

/** What a thread answers; `otherwise` where the task was too long, too large or one too many. Its own faults are thrown on. */
export async function orTooLong<T, O>(work: Promise<T>, otherwise: () => O): Promise<T | O> {
	try {
		return await work;
	} catch (error) {
		if (!(error instanceof ThreadError) || error.code === 'failed') throw error;
		return otherwise();
	}
}

/** More than these at once wait for one thread; whoever comes then is told so. */
const MOST_WAITING = 20;
/** A thread that nobody asks any more gives its memory back, ms. */
const IDLE_MS = 60_000;
/** Reading its own program takes a thread half a second; a busy machine, many times that. */
const START_MS = 30_000;
/** A task that gets less of the processor than it asks for ends after so many times its deadline, by the clock. */
const MOST_TIMES = 6;

/**
 * Work that would keep the event loop from answering, or that a file from outside may make endless, done in threads of
 * their own: one of each kind, started when it is first asked, one task after the other.
 */
export class Threads {
	#open = new Map<string, Thread>();
	#isClosed = false;

	/**
	 * @param deadlineMs the task is stopped after so much processor time, and its thread with it: a machine that is busy with
	 * other things is no fault of a task
	 * @param signal whoever asked waits no longer: it is stopped, or not begun
	 * @throws ThreadError
	 */
	async run<T extends Tasks, K extends keyof T & string>(
		kind: ThreadKind<T>,
		task: K,
		input: Parameters<T[K]>[0],
		deadlineMs: number,
		signal?: AbortSignal
	): Promise<Awaited<ReturnType<T[K]>>> {
		if (this.#isClosed) throw new ThreadError('failed', 'The server is stopping.');
		const name = `${kind.entry} ${kind.name ?? ''}`;
		const thread = this.#open.get(name) ?? new Thread(kind);
		this.#open.set(name, thread);
		return (await thread.run(task, input, deadlineMs, signal)) as Awaited<ReturnType<T[K]>>;
	}

	async close(): Promise<void> {
		this.#isClosed = true;
		await Promise.all([...this.#open.values()].map((thread) => thread.end()));
	}
}

class Thread {
	#worker: Promise<Working> | null = null;
	#before: Promise<unknown> = Promise.resolve();
	#waiting = 0;
	#idle: NodeJS.Timeout | undefined;

	constructor(private readonly kind: ThreadKind<Tasks>) {}

	async run(task: string, input: unknown, deadlineMs: number, signal?: AbortSignal): Promise<unknown> {
		if (this.#waiting >= (this.kind.mostWaiting ?? MOST_WAITING))
			throw new ThreadError('too_many', 'Too many wait for this already.');
		this.#waiting++;
		clearTimeout(this.#idle);
		const done = this.#before.then(() => this.#do(task, input, deadlineMs, signal));
		this.#before = done.catch(() => {});
		try {
			return await done;
		} finally {
			this.#waiting--;
			if (this.#waiting === 0) this.#idle = setTimeout(() => void this.end(), IDLE_MS).unref();
		}
	}

	async #do(task: string, input: unknown, deadlineMs: number, signal?: AbortSignal): Promise<unknown> {
		if (signal?.aborted) throw new ThreadError('stopped', 'Nobody waits for this any more.');
		const worker = await (this.#worker ??= this.#start().catch((error) => {
			this.#worker = null;
			throw error;
		}));
		try {
			return await answerOf(worker, deadlineMs, () => worker.postMessage({ task, input }), signal);
		} catch (error) {
			// What was stopped, or has run out of memory, is not asked again; a task that only failed has harmed nothing.
			if (!(error instanceof ThreadError) || error.code !== 'failed') await this.end();
			throw error;
		}
	}

	async #start(): Promise<Working> {
		const worker = this.kind.ownProcess ? newProcess(this.kind) : newThread(this.kind);
		worker.on('error', () => {});
		worker.on('exit', () => {
			// By then another may have been started in its place.
			void this.#worker?.then((latest) => latest === worker && (this.#worker = null));
		});
		await answerOf(worker, START_MS, () => {});
		return worker;
	}

	async end(): Promise<void> {
		clearTimeout(this.#idle);
		const worker = await this.#worker?.catch(() => null);
		this.#worker = null;
		await worker?.terminate();
	}
}

/** What does the work: a thread, or a process that is spoken to like one. */
type Working = {
	on: (event: string, heard: (said: never) => void) => Working;
	off: (event: string, heard: (said: never) => void) => Working;
	postMessage: (asked: Asked) => void;
	terminate: () => Promise<number>;
	/** Processor time so far of the process that it works in, ms; null: this system does not tell. */
	processorMs: () => number | null;
};

const BOOT = 'src/lib/server/thread/boot.mjs';

function newThread({ entry, memoryMb }: ThreadKind<Tasks>): Working {
	const root = projectFolder();
	const worker = new Worker(join(root, BOOT), {
		workerData: { entry: join(root, entry), root },
		execArgv: [],
		resourceLimits: { maxOldGenerationSizeMb: memoryMb }
	});
	// Nobody waits with stopping for a thread that has nothing to do.
	worker.unref();
	// A thread's own time is not told: it had no more than its process.
	return Object.assign(worker as unknown as Working, { processorMs: ownProcessorMs });
}

function newProcess({ entry, memoryMb }: ThreadKind<Tasks>): Working {
	const root = projectFolder();
	const child = fork(join(root, BOOT), [], {
		serialization: 'advanced',
		execArgv: [`--max-old-space-size=${memoryMb}`],
		env: { PATH: env.PATH, HOME: env.HOME, OTIUM_THREAD: JSON.stringify({ entry: join(root, entry), root }) },
		stdio: ['ignore', 'ignore', 'ignore', 'ipc']
	});
	child.unref();
	child.channel?.unref();
	const gone = new Promise<number>((resolve) => child.once('exit', (code) => resolve(code ?? 1)));
	const process: Working = {
		on: (event, heard) => (child.on(event, heard as () => void), process),
		off: (event, heard) => (child.off(event, heard as () => void), process),
		// One that is gone already says so by its end.
		postMessage: (asked) => void child.send(asked, () => {}),
		terminate: () => {
			child.kill('SIGKILL');
			return gone;
		},
		processorMs: () => (child.pid === undefined ? null : processorMsOf(child.pid))
	};
	return process;
}

/** The next thing that the thread says. */
function answerOf(worker: Working, deadlineMs: number, ask: () => void, signal?: AbortSignal): Promise<unknown> {
	return new Promise((resolve, reject) => {
		const settle = (settled: () => void) => {
			clearTimeout(timer);
			worker.off('message', onMessage).off('error', onError).off('exit', onExit);
			signal?.removeEventListener('abort', onAbort);
			settled();
		};
		const fail = (code: ThreadError['code'], message: string) => settle(() => reject(new ThreadError(code, message)));
		const onMessage = (answered: Answered) => {
			if ('failed' in answered) fail('failed', `${answered.failed.name}: ${answered.failed.message}`);
			else settle(() => resolve('result' in answered ? answered.result : null));
		};
		const onError = (error: Error & { code?: string }) =>
			fail(error.code === 'ERR_WORKER_OUT_OF_MEMORY' ? 'too_large' : 'failed', error.message);
		const onAbort = () => fail('stopped', 'Nobody waits for this any more.');
		const onExit = () => fail('failed', 'The thread ended.');
		const [began, hadBefore] = [performance.now(), worker.processorMs()];
		const onTime = () => {
			const had = worker.processorMs();
			const left = had === null || hadBefore === null ? 0 : deadlineMs - (had - hadBefore);
			if (left > 0 && performance.now() - began < MOST_TIMES * deadlineMs)
				timer = setTimeout(onTime, Math.max(20, left));
			else fail('too_long', `This took longer than ${deadlineMs / 1_000} s.`);
		};
		let timer = setTimeout(onTime, deadlineMs);
		worker.on('message', onMessage).on('error', onError).on('exit', onExit);
		signal?.addEventListener('abort', onAbort);
		ask();
	});
}

/** The folder above this file, bundled or not, that holds the project. */
function projectFolder(): string {
	let folder = dirname(fileURLToPath(import.meta.url));
	while (!existsSync(join(folder, 'package-lock.json'))) folder = dirname(folder);
	return folder;
}
