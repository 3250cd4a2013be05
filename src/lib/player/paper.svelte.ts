import { SvelteMap } from 'svelte/reactivity';
import {
	isBlank,
	materialPages,
	mediaBeside,
	placeToResume,
	type AnswerValue,
	type DrawnFormula,
	type FormQuestion,
	type Material,
	type Picture,
	type Played
} from '$core/paper';
import { forwardBy } from '$core/session';
import type { Problem } from '$core/problem';
import type { QuestionTime } from '$core/time';
import { ask } from './ask';
import { drawnFormulas } from './drawn-formulas';
import type { SittingPicture } from '$core/room';
import { forgetTab, keyOf, rememberSeen, rememberTab, seenIn } from './kept';
import { LocalStore, type Place } from './local-store';
import { Handed } from './handed.svelte';
import { Media } from './media.svelte';
import { Outbox } from './outbox.svelte';

export type Given = { value: AnswerValue; marked: boolean; struck: string[]; inViewMs: number };
/** What the paper is made of, apart from the answers. */
type Content = Sight & {
	/** Every question of the paper, in its order, seen or not. */
	order: string[];
	formulaSheet: string[];
	material: Material[];
	language: string;
	/** Languages in which some of it can be read beside its own. */
	languages: string[];
};
/** Questions that may be seen. Where nobody may go back they come page by page. */
type Sight = {
	questions: FormQuestion[];
	pictures: Record<string, Picture>;
	/** By their TeX; what is missing is drawn here. `isWhole`: nothing is. */
	formulas?: Record<string, DrawnFormula>;
	isWhole?: boolean;
	/** The time that runs for them, where each question has its own. */
	question?: QuestionTime | null;
};
type Answer = Given & { questionId: string };
type Sent = Content & { key: string; answers: Answer[]; lastSeq: number; played: Played[] };
type Kept = Content & { picture: SittingPicture; played?: Played[] };
type Loaded = { ok: true; paper: Paper } | { ok: false; problem: Problem; status: number };

const NOTHING: Given = { value: null, marked: false, struck: [], inViewMs: 0 };

/** Typing is told when it has rested so long, and while it goes on every so often. */
const REST_MS = 400;
const TYPING_MS = 3_000;
/** A page that did not come is asked for again. */
const AGAIN_MS = 1_000;
/** Formulas that were not drawn in time are asked for so often, and so much later. */
const FORMULAS_AGAIN = 3;
const FORMULAS_AGAIN_MS = 5_000;

/** The paper on this device: the questions, what has been answered, and the way of every change to the server. */
export class Paper {
	given = new SvelteMap<string, Given>();
	at = $state(0);
	/** The time of the question that came last, where each has its own. */
	questionTime = $state.raw<QuestionTime | null>(null);
	/** It came from this device, and the server does not know that it was opened. */
	isUnseen = $state(false);
	readonly media: Media;
	readonly handed = new Handed((questionId, fileId) => {
		const { value } = this.of(questionId);
		const there = Array.isArray(value) ? value : [];
		if (!there.includes(fileId)) this.change(questionId, { value: [...there, fileId] });
	});
	#questions = new SvelteMap<string, FormQuestion>();
	#pictures = new SvelteMap<string, Picture>();
	#viewSince = performance.now();
	// Timers are nothing to show.
	// eslint-disable-next-line svelte/prefer-svelte-reactivity
	#resting = new Map<string, { timer: ReturnType<typeof setTimeout>; since: number }>();
	/** The place that was reached last is being told. */
	#turning: Promise<unknown> = Promise.resolve();

	private constructor(
		private readonly content: Content,
		private readonly place: Place,
		private readonly store: LocalStore,
		readonly outbox: Outbox,
		/** Questions on a page where nobody may go back; null: they may. */
		readonly forwardBy: number | null
	) {
		this.media = new Media(place, store);
		this.#see(content);
		this.media.want(materialPages(this));
	}

	/** Every question of the paper by its name, in order. */
	get order() {
		return this.content.order;
	}
	get pictures(): Record<string, Picture> {
		return Object.fromEntries(this.#pictures);
	}
	get formulaSheet() {
		return this.content.formulaSheet;
	}
	get material() {
		// A paper that an earlier release kept on this device says nothing of it.
		return this.content.material ?? [];
	}
	get otherLanguages() {
		return this.content.languages;
	}
	get language() {
		return this.content.language;
	}

	/** The question at a place; undefined: it has not come yet. */
	questionAt(place: number): FormQuestion | undefined {
		return this.#questions.get(this.order[place]);
	}

	#see({ questions, pictures, formulas = {}, question = null }: Sight) {
		for (const [tex, drawn] of Object.entries(formulas)) drawnFormulas.set(tex, drawn);
		this.questionTime = question;
		for (const question of questions) this.#questions.set(question.id, question);
		for (const [name, picture] of Object.entries(pictures)) this.#pictures.set(name, picture);
		this.media.want(questions.flatMap(mediaBeside));
	}

	/**
	 * Asks for the questions of the page that has been reached until they have come. What waits is sent first, because the
	 * server gives out a page when it knows that the one before has been left. Returns a stop.
	 */
	receive(picture: () => SittingPicture): () => void {
		let isStopped = false;
		const asking = async () => {
			while (!isStopped && this.questionAt(this.at) === undefined) {
				await this.settle();
				const answer = await ask<Sight>('GET', '/sit/api/page');
				if (isStopped) return;
				if (answer.ok) {
					this.#see(answer.data);
					await this.keep(picture());
				}
				if (this.questionAt(this.at) === undefined) await new Promise((done) => setTimeout(done, AGAIN_MS));
			}
		};
		void asking();
		return () => (isStopped = true);
	}

	/**
	 * Loads the paper; what this device had kept and not sent lies over what the server has. Without a line it is the paper
	 * that this tab had before.
	 * @param view this page's own name, another each time it is opened
	 */
	static async load(place: Place, picture: SittingPicture, view: string): Promise<Loaded> {
		const answer = await ask<Sent>('GET', `/sit/api/paper?view=${view}`);
		if (!answer.ok) {
			const isOutOfReach = answer.status === 0 || answer.status >= 500;
			return (isOutOfReach && (await Paper.#loadKept(place, picture))) || answer;
		}
		const { key, answers, lastSeq, played, ...content } = answer.data;
		rememberTab(place, key);
		const store = await LocalStore.open(key);
		await store.startAfter(place, lastSeq);
		const paper = await Paper.#begin(content, answers, place, store, picture);
		paper.media.know(played);
		await paper.keep(picture);
		void paper.#hearFormulas(picture);
		return { ok: true, paper };
	}

	/** The device draws by itself what the server had no time for; only the server puts it into words. */
	async #hearFormulas(picture: SittingPicture): Promise<void> {
		let { isWhole = true } = this.content;
		for (let asked = 0; asked < FORMULAS_AGAIN && !isWhole; asked++) {
			await new Promise((done) => setTimeout(done, FORMULAS_AGAIN_MS));
			const answer = await ask<Sight>('GET', '/sit/api/page');
			if (!answer.ok) continue;
			isWhole = answer.data.isWhole ?? true;
			for (const [tex, drawn] of Object.entries(answer.data.formulas ?? {})) drawnFormulas.set(tex, drawn);
			await this.keep(picture);
		}
	}

	static async #loadKept(place: Place, picture: SittingPicture): Promise<Loaded | null> {
		const key = keyOf(place);
		if (key === null) return null;
		const store = await LocalStore.open(key);
		const kept = await store.keptPaper<Kept>(place);
		if (!kept) return null;
		const { picture: _picture, played = [], ...content } = kept.paper;
		const paper = await Paper.#begin(content, kept.given, place, store, picture);
		paper.media.know(played);
		paper.isUnseen = true;
		return { ok: true, paper };
	}

	/** Tells the server of a page that opened without it, as soon as it is there. Some rules let nobody back in so. */
	async show(view: string): Promise<boolean> {
		const answer = await ask('GET', `/sit/api/paper?view=${view}`);
		if (answer.ok) this.isUnseen = false;
		return answer.ok;
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
			const index = paper.order.indexOf(questionId);
			if (index >= 0) touched.push(index);
		}
		paper.at = placeToResume({
			questions: paper.order.length,
			touched,
			seen: seenIn(place.sittingId),
			forwardBy: forward,
			isSettled: (index) => {
				const id = paper.order[index];
				return paper.isAnswered(id) || paper.of(id).marked;
			}
		});
		void paper.outbox.flush();
		return paper;
	}

	/** Keeps the paper on the device with what is known of the sitting, for a reload without a line. */
	async keep(picture: SittingPicture): Promise<void> {
		const seen = {
			questions: [...this.#questions.values()],
			pictures: this.pictures,
			formulas: Object.fromEntries(drawnFormulas)
		};
		await this.store.keepPaper(this.place, { ...this.content, ...seen, played: this.media.played, picture });
	}

	/** The sitting has ended: nothing of the paper stays on the device. */
	async forget(): Promise<void> {
		forgetTab();
		this.media.stop();
		this.handed.stop();
		await this.store.forgetPaper(this.place);
	}

	of(questionId: string): Given {
		return this.given.get(questionId) ?? NOTHING;
	}

	isAnswered(questionId: string): boolean {
		return !isBlank(this.of(questionId).value);
	}

	/** Answers and files that are still on this device alone. */
	get waiting(): number {
		return this.outbox.waiting + this.handed.pending.length;
	}

	blanks = $derived.by(() => this.order.flatMap((id, i) => (this.isAnswered(id) ? [] : [i])));
	marked = $derived.by(() => this.order.flatMap((id, i) => (this.of(id).marked ? [i] : [])));

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
		this.at = Math.min(this.order.length - 1, Math.max(0, index));
		rememberSeen(this.place.sittingId, this.at);
		// What is still resting belongs before what comes next: a paper that does not go back takes them in order. There the
		// place that was reached is told as well, or whoever loads the page anew would find what lies behind open again.
		const reached = this.order[this.at];
		const isNew = this.forwardBy !== null && !this.given.has(reached);
		this.#turning = this.#tellResting().then(() => (isNew ? this.#tell(reached) : undefined));
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
		await this.#turning;
		await this.#tellResting();
		await this.outbox.flush();
		return this.waiting === 0;
	}

	async #tellResting() {
		const resting = [...this.#resting.keys()];
		for (const questionId of resting) clearTimeout(this.#resting.get(questionId)?.timer);
		await Promise.all(resting.map((questionId) => this.#tell(questionId)));
	}

	async #tell(questionId: string) {
		this.#resting.delete(questionId);
		if (this.order[this.at] === questionId) this.#countView();
		const { value, marked, struck, inViewMs } = this.of(questionId);
		await this.outbox.put({ questionId, value, marked, struck: [...struck], inViewMs: Math.round(inViewMs) });
	}

	#countView() {
		const now = performance.now();
		// What has not come yet is not looked at.
		const question = this.questionAt(this.at);
		if (question && document.visibilityState === 'visible') {
			const given = this.of(question.id);
			this.given.set(question.id, { ...given, inViewMs: given.inViewMs + (now - this.#viewSince) });
		}
		this.#viewSince = now;
	}
}
