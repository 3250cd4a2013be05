import { send, type Problem } from '$ui/post';
import type { LocalStore, Place, Revision } from './local-store';

type Saved = { seqs: number[]; at: number };

/** Waits between tries while the server can't be reached: quick at first, never long. */
const RETRY_MS = [500, 1_000, 2_000, 4_000];
/** So many go in one request; a long silence is told in several. */
const BATCH = 200;

/**
 * Sends answers, in order, once each, without the candidate doing anything. A revision leaves the device only when the
 * server has said that it is on its disk.
 */
export class AnswerQueue {
	/** How many are still on their way. */
	waiting = $state(0);
	/** The server's time of the last save; null: none yet. */
	savedAt = $state<number | null>(null);
	/** Why they wait; null: nothing is wrong. */
	trouble = $state.raw<Problem | null>(null);
	/** The server took them but they do not count; told to the candidate once. */
	keptNote = $state.raw<Problem | null>(null);
	#sending: Promise<void> | null = null;
	#tries = 0;
	#timer: ReturnType<typeof setTimeout> | undefined;
	#stopped = false;

	constructor(
		private readonly store: LocalStore,
		private readonly place: Place
	) {
		addEventListener('online', this.flush);
	}

	async put(revision: Omit<Revision, 'seq'>): Promise<void> {
		await this.store.add(this.place, revision);
		this.waiting++;
		void this.flush();
	}

	/** Sends what waits; resolves when the server has all of it, or when it can't be reached. */
	flush = (): Promise<void> => {
		clearTimeout(this.#timer);
		this.#sending ??= this.#send().finally(() => (this.#sending = null));
		return this.#sending;
	};

	stop() {
		this.#stopped = true;
		clearTimeout(this.#timer);
		removeEventListener('online', this.flush);
	}

	async #send(): Promise<void> {
		for (;;) {
			const revisions = await this.store.waiting(this.place);
			this.waiting = revisions.length;
			if (revisions.length === 0 || this.#stopped) {
				this.trouble = null;
				this.#tries = 0;
				return;
			}
			const answer = await send<Saved>('POST', '/sit/api/answers', { revisions: revisions.slice(0, BATCH) });
			if (answer.ok) {
				await this.#settle(answer.data);
				continue;
			}
			// Kept without counting: they are safe with the server, so they need not be sent again.
			const kept = answer.problem as Problem & Partial<Saved>;
			if (answer.status === 409 && kept.seqs) {
				this.keptNote = kept;
				await this.#settle({ seqs: kept.seqs, at: kept.at! });
				continue;
			}
			this.trouble = answer.problem;
			const wait = RETRY_MS[Math.min(this.#tries++, RETRY_MS.length - 1)];
			this.#timer = setTimeout(() => void this.flush(), wait);
			return;
		}
	}

	async #settle(saved: Saved) {
		await this.store.remove(this.place, saved.seqs);
		this.savedAt = saved.at;
		this.trouble = null;
		this.#tries = 0;
	}
}
