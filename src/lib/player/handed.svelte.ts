import { SvelteMap } from 'svelte/reactivity';
import type { HandedFile } from '$core/paper';
import { ask } from './ask';
import { inWords } from '$ui/post';

type Pending = { questionId: string; name: string; blob: Blob };

/** A file that did not come through is sent again. */
const AGAIN_MS = 3_000;

/** Photos and PDFs that are handed over for questions: sent until the server has them, then named in the answer. */
export class Handed {
	/** What the server has, whether an answer names it or not. */
	files = $state.raw<HandedFile[]>([]);
	/** What is on its way, oldest first. */
	pending = $state.raw<Pending[]>([]);
	/** What was not taken, by question, in words. */
	refused = $state.raw<Record<string, string>>({});
	/** Photos as this page shows them, by file. */
	#shown = new SvelteMap<string, string>();
	#isSending = false;
	#isStopped = false;

	/** @param onhanded a file has arrived that belongs into the answer to its question */
	constructor(private readonly onhanded: (questionId: string, fileId: string) => void) {}

	add(questionId: string, files: Iterable<File>): void {
		const { [questionId]: _, ...refused } = this.refused;
		this.refused = refused;
		this.pending = [...this.pending, ...[...files].map((blob) => ({ questionId, name: blob.name, blob }))];
		void this.#send();
	}

	/** Asks what the server has. */
	async look(): Promise<void> {
		const answer = await ask<{ files: HandedFile[] }>('GET', '/sit/api/files');
		if (answer.ok) this.files = answer.data.files;
	}

	/** Where the page finds a photo that was handed over; null: it has not come yet, or is no photo. */
	addressOf(id: string): string | null {
		return this.#shown.get(id) ?? null;
	}

	/** Fetches a photo for the page, once. */
	async show(id: string): Promise<void> {
		if (this.of(id)?.type !== 'image/jpeg' || this.#shown.has(id)) return;
		const answer = await ask<Blob>('GET', `/sit/api/files/${id}`, undefined, { file: true });
		if (answer.ok && !this.#isStopped && !this.#shown.has(id)) this.#shown.set(id, URL.createObjectURL(answer.data));
	}

	of(id: string): HandedFile | undefined {
		return this.files.find((file) => file.id === id);
	}

	stop(): void {
		this.#isStopped = true;
		for (const address of this.#shown.values()) URL.revokeObjectURL(address);
	}

	async #send() {
		if (this.#isSending) return;
		this.#isSending = true;
		while (this.pending.length > 0 && !this.#isStopped) {
			const [{ questionId, name, blob }] = this.pending;
			const answer = await ask<{ file: HandedFile }>('POST', `/sit/api/files/of/${questionId}`, blob, {
				headers: { 'x-file-name': encodeURIComponent(name) }
			});
			// During a hold or a break nothing is taken: it waits for work to go on, like an answer.
			if (!answer.ok && ([0, 409, 429].includes(answer.status) || answer.status >= 500)) {
				await new Promise((done) => setTimeout(done, AGAIN_MS));
				continue;
			}
			this.pending = this.pending.slice(1);
			if (answer.ok) {
				const { file } = answer.data;
				// The same file once more is the same file.
				this.files = [...this.files.filter(({ id }) => id !== file.id), file];
				this.onhanded(questionId, file.id);
			} else this.refused = { ...this.refused, [questionId]: `${name}: ${inWords(answer.problem)}` };
		}
		this.#isSending = false;
	}
}
