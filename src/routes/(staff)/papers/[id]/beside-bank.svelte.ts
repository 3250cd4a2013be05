import type { Paper, Question } from '$core/paper';
import { inWords, send } from '$ui/post';
import type { DraftPaper } from './draft.svelte';

const REST_MS = 2_000;

/** How the bank stands to the paper that is being written; asked for again when the paper has changed. */
export class BesideBank {
	/** By the questions' ids. */
	known = $state.raw<Record<string, true>>({});
	newer = $state.raw<Record<string, Question>>({});
	trouble = $state<string | null>(null);
	done = $state<string | null>(null);
	busy = $state(false);

	#timer: ReturnType<typeof setTimeout> | undefined;

	constructor(readonly draft: DraftPaper) {}

	/** The questions that the bank does not have as they are here. */
	missing(paper: Paper): string[] {
		return paper.parts.flatMap(({ questions }) => questions.map(({ id }) => id)).filter((id) => !this.known[id]);
	}

	/** Looks when writing rests: the server reads the whole paper for it. */
	lookSoon(): void {
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => void this.look(), REST_MS);
	}

	async look(): Promise<void> {
		const answer = await send<{ known: string[]; newer: Question[] }>('GET', `/papers/${this.draft.id}/bank`);
		if (!answer.ok) return;
		this.known = Object.fromEntries(answer.data.known.map((id) => [id, true]));
		this.newer = Object.fromEntries(answer.data.newer.map((question) => [question.id, question]));
	}

	async keep(ids: string[]): Promise<void> {
		if (this.busy) return;
		this.busy = true;
		const kept = await send<{ added: number; changed: number }>('POST', `/papers/${this.draft.id}/bank`, { ids });
		this.busy = false;
		this.trouble = kept.ok ? null : inWords(kept.problem);
		if (kept.ok) this.done = `In the bank: ${kept.data.added} new, ${kept.data.changed} revised.`;
		await this.look();
	}
}
