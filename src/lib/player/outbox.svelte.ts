import type { Revision } from '$core/paper';
import type { Problem } from '$core/problem';
import { ask } from './ask';
import { cut, lastOfEach } from './batch';
import type { LocalStore, Place } from './local-store';

type Saved = { seqs: number[]; at: number };

/** Waits between tries while the server can't be reached: quick at first, never long. */
const RETRY_MS = [500, 1_000, 2_000, 4_000];
/** The server has read them and will never take them as they are: sending the same again would block all that follows. */
const NEVER_TAKEN = [400, 413, 422];

/**
 * Sends answers, once each, without the candidate doing anything. A revision leaves the device only when the server has
 * said that it is on its disk; of several unsent revisions of one question the last is enough.
 */
export class Outbox {
	/** How many questions are still on their way. */
	waiting = $state(0);
	/** The server's time of the last save; null: none yet. */
	savedAt = $state<number | null>(null);
	/** Why they wait; null: nothing is wrong. */
	trouble = $state.raw<Problem | null>(null);
	/** The server took them but they do not count; told to the candidate once. */
	keptNote = $state.raw<Problem | null>(null);
	/** Questions whose answer the server can't take as it is: it stays on the device, and the others go on. */
	aside = $state.raw<{ questionId: string; problem: Problem }[]>([]);
	/** What is not sent yet would outlive a reload. */
	isDurable = $state(true);
	/** Numbers that stand aside: not sent again by this page. */
	// Numbers are nothing to show: what is shown is `aside`.
	// eslint-disable-next-line svelte/prefer-svelte-reactivity
	#aside = new Map<number, string>();
	/** Put and not yet numbered: they count as waiting from the first moment. */
	#adding = 0;
	#sending: Promise<void> | null = null;
	#tries = 0;
	#timer: ReturnType<typeof setTimeout> | undefined;
	#stopped = false;

	constructor(
		private readonly store: LocalStore,
		private readonly place: Place
	) {
		this.isDurable = store.isDurable;
		store.onDurable = (isDurable) => (this.isDurable = isDurable);
		addEventListener('online', this.flush);
	}

	async put(revision: Omit<Revision, 'seq'>): Promise<void> {
		this.#adding++;
		this.waiting++;
		try {
			await this.store.add(this.place, revision);
		} finally {
			this.#adding--;
		}
		// An answer that was given anew takes the place of the one that stood aside.
		if (this.aside.some((one) => one.questionId === revision.questionId))
			this.aside = this.aside.filter((one) => one.questionId !== revision.questionId);
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
			const all = await this.store.waiting(this.place);
			const { last, covered } = lastOfEach(all.filter((revision) => !this.#aside.has(revision.seq)));
			this.waiting = last.length + this.#adding;
			if (last.length === 0 || this.#stopped) {
				this.trouble = null;
				this.#tries = 0;
				return;
			}
			const problem = await this.#deliver(cut(last), covered);
			if (problem === null) continue;
			this.trouble = problem;
			const wait = RETRY_MS[Math.min(this.#tries++, RETRY_MS.length - 1)];
			if (!this.#stopped) this.#timer = setTimeout(() => void this.flush(), wait);
			return;
		}
	}

	/**
	 * Sends one batch, in halves where the server does not read it whole, until the one that it can't take stands alone.
	 * Returns why it must wait; null: the server has it, or it stands aside.
	 */
	async #deliver(batch: Revision[], covered: Map<number, number[]>): Promise<Problem | null> {
		const answer = await ask<Saved>('POST', '/sit/api/answers', { revisions: batch });
		const taken = answer.ok ? answer.data : (answer.problem as Problem & Partial<Saved>);
		// With 409 they are kept without counting: safe with the server, so they need not be sent again.
		if ((answer.ok || answer.status === 409) && Array.isArray(taken.seqs)) {
			if (!answer.ok) this.keptNote = answer.problem;
			await this.#settle(taken.seqs, taken.at!, covered);
			return null;
		}
		if (answer.ok) return UNREADABLE;
		if (!NEVER_TAKEN.includes(answer.status)) return answer.problem;
		if (batch.length === 1) {
			this.#putAside(batch[0], answer.problem);
			return null;
		}
		const middle = Math.ceil(batch.length / 2);
		return (
			(await this.#deliver(batch.slice(0, middle), covered)) ?? (await this.#deliver(batch.slice(middle), covered))
		);
	}

	#putAside({ seq, questionId }: Revision, problem: Problem) {
		this.#aside.set(seq, questionId);
		this.aside = [...this.aside.filter((one) => one.questionId !== questionId), { questionId, problem }];
	}

	async #settle(seqs: number[], at: number, covered: Map<number, number[]>) {
		await this.store.remove(
			this.place,
			seqs.flatMap((seq) => [seq, ...(covered.get(seq) ?? [])])
		);
		this.savedAt = at;
		this.trouble = null;
		this.#tries = 0;
	}
}

/** Something between here and the server answered in its place, as the sign-in page of a network does. */
const UNREADABLE: Problem = {
	code: 'unreadable',
	message: 'The server’s answer can’t be read.',
	instead: 'Your answers stay on this device and are sent again.'
};
