import { SvelteMap } from 'svelte/reactivity';
import { isBlank, placeToResume, type AnswerValue, type FormQuestion, type Picture } from '$core/paper';
import { forwardBy } from '$core/session';
import type { Problem } from '$core/problem';
import { ask } from './ask';
import type { SittingPicture } from '$core/room';
import { forgetTab, keyOf, rememberSeen, rememberTab, seenIn } from './kept';
import { LocalStore, type Place } from './local-store';
import { Outbox } from './outbox.svelte';

export type Given = { value: AnswerValue; marked: boolean; struck: string[]; inViewMs: number };
/** What the paper is made of, apart from the answers. */
type Content = {
	questions: FormQuestion[];
	pictures: Record<string, Picture>;
	formulaSheet: string[];
	language: string;
};
type Answer = Given & { questionId: string };
type Sent = Content & { key: string; answers: Answer[]; lastSeq: number };
type Kept = Content & { picture: SittingPicture };
type Loaded = { ok: true; paper: Paper } | { ok: false; problem: Problem; status: number };

const NOTHING: Given = { value: null, marked: false, struck: [], inViewMs: 0 };

/** Typing is told when it has rested so long, and while it goes on every so often. */
const REST_MS = 400;
const TYPING_MS = 3_000;

/** The paper on this device: the questions, what has been answered, and the way of every change to the server. */
export class Paper {
	given = new SvelteMap<string, Given>();
	at = $state(0);
	#viewSince = performance.now();
	// Timers are nothing to show.
	// eslint-disable-next-line svelte/prefer-svelte-reactivity
	#resting = new Map<string, { timer: ReturnType<typeof setTimeout>; since: number }>();

	private constructor(
		private readonly content: Content,
		private readonly place: Place,
		private readonly store: LocalStore,
		readonly outbox: Outbox,
		/** Questions on a page where nobody may go back; null: they may. */
		readonly forwardBy: number | null
	) {}

	get questions() {
		return this.content.questions;
	}
	get pictures() {
		return this.content.pictures;
	}
	get formulaSheet() {
		return this.content.formulaSheet;
	}
	/** Languages in which some of it can be read beside its own. */
	get otherLanguages() {
		const tags = this.questions.flatMap((question) => Object.keys(question.inOther ?? {}));
		return tags.filter((tag, i) => tags.indexOf(tag) === i);
	}
	get language() {
		return this.content.language;
	}

	/**
	 * Loads the paper; what this device had kept and not sent lies over what the server has. Without a line it is the paper
	 * that this tab had before.
	 */
	static async load(place: Place, picture: SittingPicture): Promise<Loaded> {
		const answer = await ask<Sent>('GET', '/sit/api/paper');
		if (!answer.ok) {
			const isOutOfReach = answer.status === 0 || answer.status >= 500;
			return (isOutOfReach && (await Paper.#loadKept(place, picture))) || answer;
		}
		const { key, answers, lastSeq, ...content } = answer.data;
		rememberTab(place, key);
		const store = await LocalStore.open(key);
		await store.startAfter(place, lastSeq);
		const paper = await Paper.#begin(content, answers, place, store, picture);
		await paper.keep(picture);
		return { ok: true, paper };
	}

	static async #loadKept(place: Place, picture: SittingPicture): Promise<Loaded | null> {
		const key = keyOf(place);
		if (key === null) return null;
		const store = await LocalStore.open(key);
		const kept = await store.keptPaper<Kept>(place);
		if (!kept) return null;
		const { picture: _picture, ...content } = kept.paper;
		return { ok: true, paper: await Paper.#begin(content, kept.given, place, store, picture) };
	}

	static async #begin(
		content: Content,
		answers: Answer[],
		place: Place,
		store: LocalStore,
		picture: SittingPicture
	): Promise<Paper> {
		const forward = forwardBy(picture.session.movement);
		const paper = new Paper(content, place, store, new Outbox(store, place), forward);
		const touched: number[] = [];
		for (const { questionId, value, marked, struck, inViewMs } of [...answers, ...(await store.waiting(place))]) {
			paper.given.set(questionId, { value, marked, struck, inViewMs });
			const index = paper.questions.findIndex((question) => question.id === questionId);
			if (index >= 0) touched.push(index);
		}
		paper.at = placeToResume({
			questions: paper.questions.length,
			touched,
			seen: seenIn(place.sittingId),
			forwardBy: forward,
			isSettled: (index) => {
				const { id } = paper.questions[index];
				return paper.isAnswered(id) || paper.of(id).marked;
			}
		});
		void paper.outbox.flush();
		return paper;
	}

	/** Keeps the paper on the device with what is known of the sitting, for a reload without a line. */
	async keep(picture: SittingPicture): Promise<void> {
		await this.store.keepPaper(this.place, { ...this.content, picture });
	}

	/** The sitting has ended: nothing of the paper stays on the device. */
	async forget(): Promise<void> {
		forgetTab();
		await this.store.forgetPaper(this.place);
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
		const resting = this.#resting.get(questionId);
		clearTimeout(resting?.timer);
		const now = performance.now();
		const since = resting?.since ?? now;
		if (!rests || now - since > TYPING_MS) void this.#tell(questionId);
		else this.#resting.set(questionId, { since, timer: setTimeout(() => void this.#tell(questionId), REST_MS) });
	}

	goTo(index: number) {
		this.#countView();
		this.at = Math.min(this.questions.length - 1, Math.max(0, index));
		rememberSeen(this.place.sittingId, this.at);
		// What is still resting belongs before what comes next: a paper that does not go back takes them in order. There the
		// place that was reached is told as well, or whoever loads the page anew would find what lies behind open again.
		const reached = this.questions[this.at].id;
		const isNew = this.forwardBy !== null && !this.given.has(reached);
		void this.#tellResting().then(() => (isNew ? this.#tell(reached) : undefined));
	}

	/** The page was hidden or is shown again: only time in view counts, and a hidden page may be gone in a moment. */
	viewChanged(isVisible: boolean) {
		if (isVisible) this.#viewSince = performance.now();
		else {
			this.#countView();
			void this.#tellResting();
		}
	}

	/** Tells what is still resting and waits until all has been sent. Returns true when the server has everything. */
	async settle(): Promise<boolean> {
		await this.#tellResting();
		await this.outbox.flush();
		return this.outbox.waiting === 0;
	}

	async #tellResting() {
		const resting = [...this.#resting.keys()];
		for (const questionId of resting) clearTimeout(this.#resting.get(questionId)?.timer);
		await Promise.all(resting.map((questionId) => this.#tell(questionId)));
	}

	async #tell(questionId: string) {
		this.#resting.delete(questionId);
		if (this.questions[this.at]?.id === questionId) this.#countView();
		const { value, marked, struck, inViewMs } = this.of(questionId);
		await this.outbox.put({ questionId, value, marked, struck: [...struck], inViewMs: Math.round(inViewMs) });
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
