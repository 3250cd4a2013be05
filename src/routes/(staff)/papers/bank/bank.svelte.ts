import { SvelteMap, SvelteSet, SvelteURLSearchParams } from 'svelte/reactivity';
import { BANK_PAGE, type BankLine } from '$core/bank';
import { inWords, send } from '$ui/post';

/** Letters that come close together are one search. */
const REST_MS = 180;

/** The bank as it is looked through: what is asked, and the pages of it that have come so far. */
export class Bank {
	ask = $state({ text: '', topic: '', kind: '', difficulty: '', use: '', remarks: '', retired: '' });
	total = $state<number | null>(null);
	trouble = $state<string | null>(null);
	readonly selected = new SvelteSet<string>();
	#pages = new SvelteMap<number, BankLine[]>();
	#coming = new SvelteSet<number>();
	/** Raised by every search: what comes late of an earlier one is thrown away. */
	#search = 0;
	#timer: ReturnType<typeof setTimeout> | undefined;

	line(index: number): BankLine | undefined {
		return this.#pages.get(Math.floor(index / BANK_PAGE))?.[index % BANK_PAGE];
	}

	get isFiltered() {
		return Object.values(this.ask).some(Boolean);
	}

	/** Searches again, after a moment. */
	look(afterMs = REST_MS): void {
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => {
			this.#search++;
			this.#coming.clear();
			void this.#load(0, true);
		}, afterMs);
	}

	/** Sees to it that these lines come. */
	want(first: number, last: number): void {
		for (let page = Math.floor(first / BANK_PAGE); page <= Math.floor(last / BANK_PAGE); page++)
			if (!this.#pages.has(page) && !this.#coming.has(page)) void this.#load(page, false);
	}

	async #load(page: number, isFirst: boolean): Promise<void> {
		const search = this.#search;
		this.#coming.add(page);
		const asked = new SvelteURLSearchParams({ ...this.ask, from: String(page * BANK_PAGE) });
		const answer = await send<{ total: number; lines: BankLine[] }>('GET', `/papers/bank/find?${asked}`);
		if (search !== this.#search) return;
		this.#coming.delete(page);
		this.trouble = answer.ok ? null : inWords(answer.problem);
		if (!answer.ok) return;
		if (isFirst) this.#pages.clear();
		this.#pages.set(page, answer.data.lines);
		this.total = answer.data.total;
	}
}
