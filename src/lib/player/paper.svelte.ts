import { SvelteMap } from 'svelte/reactivity';
import { isBlank, type AnswerValue, type FormQuestion, type Picture } from '$core/paper';
import { send, type Problem } from '$ui/post';
import { AnswerQueue } from './answer-queue.svelte';
import { LocalStore, type Place } from './local-store';

export type Given = { value: AnswerValue; marked: boolean; struck: string[]; inViewMs: number };
type Sent = {
	questions: FormQuestion[];
	pictures: Record<string, Picture>;
	formulaSheet: string[];
	language: string;
	answers: (Given & { questionId: string })[];
	lastSeq: number;
};

const NOTHING: Given = { value: null, marked: false, struck: [], inViewMs: 0 };

/** Typing is told when it rests, and at the latest after this. */
const REST_MS = 400;

/** The paper on this device: the questions, what has been answered, and the way of every change to the server. */
export class Paper {
	given = new SvelteMap<string, Given>();
	at = $state(0);
	#viewSince = performance.now();
	// Timers are nothing to show.
	// eslint-disable-next-line svelte/prefer-svelte-reactivity
	#resting = new Map<string, ReturnType<typeof setTimeout>>();

	private constructor(
		readonly questions: FormQuestion[],
		readonly pictures: Record<string, Picture>,
		readonly formulaSheet: string[],
		readonly language: string,
		readonly queue: AnswerQueue,
		readonly isDurable: boolean
	) {}

	/** Loads the paper; what this device had kept and not sent lies over what the server has. */
	static async load(
		place: Place
	): Promise<{ ok: true; paper: Paper } | { ok: false; problem: Problem; status: number }> {
		const answer = await send<Sent>('GET', '/sit/api/paper');
		if (!answer.ok) return answer;
		const store = await LocalStore.open();
		await store.startAfter(place, answer.data.lastSeq);
		const { questions, pictures, formulaSheet, language } = answer.data;
		const queue = new AnswerQueue(store, place);
		const paper = new Paper(questions, pictures, formulaSheet, language, queue, store.isDurable);
		for (const { questionId, value, marked, struck, inViewMs } of answer.data.answers) {
			paper.given.set(questionId, { value, marked, struck, inViewMs });
		}
		for (const { questionId, value, marked, struck, inViewMs } of await store.waiting(place)) {
			paper.given.set(questionId, { value, marked, struck, inViewMs });
		}
		const firstBlank = paper.questions.findIndex((question) => paper.of(question.id).value === null);
		paper.at = Math.max(0, firstBlank);
		void paper.queue.flush();
		return { ok: true, paper };
	}

	of(questionId: string): Given {
		return this.given.get(questionId) ?? NOTHING;
	}

	isAnswered(questionId: string): boolean {
		return !isBlank(this.of(questionId).value);
	}

	blanks = $derived.by(() => this.questions.flatMap((question, i) => (this.isAnswered(question.id) ? [] : [i])));
	marked = $derived.by(() => this.questions.flatMap((question, i) => (this.of(question.id).marked ? [i] : [])));

	/** Changes an answer. `rests`: it is being typed, and is told when that rests. */
	change(questionId: string, change: Partial<Given>, rests = false) {
		this.given.set(questionId, { ...this.of(questionId), ...change });
		clearTimeout(this.#resting.get(questionId));
		if (rests)
			this.#resting.set(
				questionId,
				setTimeout(() => void this.#tell(questionId), REST_MS)
			);
		else void this.#tell(questionId);
	}

	goTo(index: number) {
		// What is still resting belongs before what comes next: a paper that does not go back takes them in order.
		void this.#tellResting();
		this.#countView();
		this.at = Math.min(this.questions.length - 1, Math.max(0, index));
	}

	/** The page was hidden or is shown again: only time in view counts. */
	viewChanged(isVisible: boolean) {
		if (isVisible) this.#viewSince = performance.now();
		else this.#countView();
	}

	/** Tells what is still resting and waits until all has been sent. Returns true when the server has everything. */
	async settle(): Promise<boolean> {
		await this.#tellResting();
		await this.queue.flush();
		return this.queue.waiting === 0;
	}

	async #tellResting() {
		const resting = [...this.#resting.keys()];
		for (const questionId of resting) clearTimeout(this.#resting.get(questionId));
		await Promise.all(resting.map((questionId) => this.#tell(questionId)));
	}

	async #tell(questionId: string) {
		this.#resting.delete(questionId);
		if (this.questions[this.at]?.id === questionId) this.#countView();
		const { value, marked, struck, inViewMs } = this.of(questionId);
		await this.queue.put({ questionId, value, marked, struck: [...struck], inViewMs: Math.round(inViewMs) });
	}

	#countView() {
		const now = performance.now();
		const question = this.questions[this.at];
		if (question && document.visibilityState === 'visible') {
			const given = this.of(question.id);
			this.given.set(question.id, { ...given, inViewMs: given.inViewMs + (now - this.#viewSince) });
		}
		this.#viewSince = now;
	}
}
