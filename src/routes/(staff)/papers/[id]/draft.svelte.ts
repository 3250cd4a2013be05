import {
	editPaper,
	isEdited,
	newQuestion,
	spotOf,
	type Paper,
	type PaperEdit,
	type Question,
	type QuestionKind,
	type Spot
} from '$core/paper';
import { inWords, send } from '$ui/post';
import { newId } from '../question/new-id';

type Now = { content: Paper; revision: number; changedAt: number; changedBy: string };

/** A change that did not come through is tried again so soon. */
const AGAIN_MS = 3_000;
/** How often a page asks what others have written. */
const LOOK_MS = 5_000;
const MOST_UNDONE = 200;
/** A paper on the screen of whoever writes it: every change is kept as it is made, and can be undone. */
export class DraftPaper {
	paper = $state.raw() as Paper;
	revision = $state(0);
	changedBy = $state('');
	changedAt = $state(0);
	/** How many changes are on their way. */
	waiting = $state(0);
	trouble = $state<string | null>(null);
	/** What two have changed at once: theirs is kept, and mine can be put in its place. */
	conflict = $state.raw<{ mine: Question; theirs: Question | null } | null>(null);
	#undo = $state.raw<PaperEdit[]>([]);
	#last: Promise<unknown> = Promise.resolve();

	constructor(
		readonly id: string,
		now: Now
	) {
		this.#take(now);
	}

	get canUndo() {
		return this.#undo.length > 0;
	}

	/** Keeps a change: at once on the screen, then with the server, one after the other. */
	change(edit: PaperEdit, isUndo = false): void {
		const edited = editPaper(this.paper, edit);
		if (edited.outcome !== 'done' && edit.kind === 'question' && edit.before !== null) {
			// Theirs has come while this was being written.
			this.conflict = { mine: edit.after, theirs: edited.outcome === 'changed_since' ? edited.theirs : null };
			return;
		}
		if (edited.outcome !== 'done') {
			this.trouble = inTheWay(edit) ?? 'It is not there any more: somebody else has removed or changed it.';
			return;
		}
		this.paper = edited.paper;
		if (!isUndo) this.#undo = [...this.#undo, edited.undo].slice(-MOST_UNDONE);
		this.waiting++;
		this.#last = this.#last.then(() => this.#send(edit)).finally(() => this.waiting--);
	}

	undo(): void {
		const last = this.#undo.at(-1);
		if (!last) return;
		this.#undo = this.#undo.slice(0, -1);
		this.change(last, true);
	}

	add(kind: QuestionKind, at: Spot): string {
		const question = newQuestion(kind, newId);
		this.change({ kind: 'question', before: null, after: question, at });
		return question.id;
	}

	question(id: string): Question | null {
		const at = spotOf(this.paper, id);
		return at && this.paper.parts[at.part].questions[at.index];
	}

	/** One place up or down, over the edge of a part into the next. */
	move(id: string, step: 1 | -1): void {
		const at = spotOf(this.paper, id);
		if (!at) return;
		const { questions } = this.paper.parts[at.part];
		const isInside = at.index + step >= 0 && at.index + step < questions.length;
		const part = isInside ? at.part : at.part + step;
		if (!this.paper.parts[part]) return;
		const index = isInside ? at.index + step : step > 0 ? 0 : this.paper.parts[part].questions.length;
		this.change({ kind: 'move_question', id, to: { part, index } });
	}

	/** Mine after all, over what the other has written. */
	keepMine(): void {
		const conflict = this.conflict;
		this.conflict = null;
		if (!conflict) return;
		const at = spotOf(this.paper, conflict.mine.id) ?? { part: 0, index: 0 };
		this.change({ kind: 'question', before: conflict.theirs, after: conflict.mine, at });
	}

	/** Looks every few seconds what others have written. Returns the end of it. */
	watch(): () => void {
		const timer = setInterval(async () => {
			if (this.waiting > 0 || document.hidden) return;
			const answer = await send<Now | { revision: number }>('GET', `/papers/${this.id}?since=${this.revision}`);
			// What was asked before a change of ours may be answered after it.
			const isNews = answer.ok && this.waiting === 0 && answer.data.revision > this.revision;
			if (isNews && 'content' in answer.data) this.#take(answer.data);
		}, LOOK_MS);
		return () => clearInterval(timer);
	}

	#take({ content, revision, changedAt, changedBy }: Now): void {
		this.paper = content;
		this.revision = revision;
		this.changedAt = changedAt;
		this.changedBy = changedBy;
	}

	async #send(edit: PaperEdit): Promise<void> {
		for (;;) {
			const answer = await send<Now>('POST', `/papers/${this.id}`, edit);
			if (answer.ok) {
				this.trouble = null;
				// Changes made since are on the screen already, and come next.
				if (this.waiting === 1) this.#take(answer.data);
				else this.revision = answer.data.revision;
				return;
			}
			if (answer.status === 0 || answer.status >= 500) {
				this.trouble = 'The server can’t be reached. What you write is kept on this page and sent when it is back.';
				await new Promise((resolve) => setTimeout(resolve, AGAIN_MS));
				continue;
			}
			const { problem } = answer;
			const now = problem as unknown as Partial<Now> & { theirs?: Question | null };
			if (now.content) {
				// Its first answer was lost on the way.
				const isOurs = isEdited(now.content, edit);
				this.#take(now as Now);
				this.trouble = isOurs || (edit.kind === 'question' && now.theirs) ? null : (inTheWay(edit) ?? inWords(problem));
				if (!isOurs && edit.kind === 'question' && now.theirs) this.conflict = { mine: edit.after, theirs: now.theirs };
				return;
			}
			this.trouble = inWords(problem);
			const whole = await send<Now>('GET', `/papers/${this.id}`);
			if (whole.ok) this.#take(whole.data);
			return;
		}
	}
}

/** What is told where two have changed a shared text at once; null: the change is of another kind. */
function inTheWay(edit: PaperEdit): string | null {
	return edit.kind === 'stimulus'
		? `Somebody else has changed this shared text meanwhile, and theirs stands. Yours was: “${edit.after.text}”`
		: null;
}
