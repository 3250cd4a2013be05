/** `refused`: told to the person, who has to change something first. `line_down`: tried again by itself. */
export type Outcome = 'kept' | 'refused' | 'line_down';

const RETRY_MS = 3_000;
const SOON_MS = 100;

/**
 * Keeps what is entered as it is entered: when typing rests, one request at a time, again when the line was down, and at
 * once when the page is left, by a link or with the whole tab.
 */
export class Keeper {
	/** Something is not with the server yet. */
	isUnkept = $state(false);
	isKeeping = $state(false);
	#changes = 0;
	#timer: ReturnType<typeof setTimeout> | undefined;

	/** @param keep sends what there is; `leaving`: the page goes, and only a request that outlives it arrives */
	constructor(
		private readonly keep: (leaving: boolean) => Promise<Outcome>,
		private readonly restMs = 400
	) {}

	/** Something was entered. */
	touched() {
		this.isUnkept = true;
		this.#changes++;
		this.#after(this.restMs);
	}

	async flush(leaving = false): Promise<void> {
		clearTimeout(this.#timer);
		if (!this.isUnkept) return;
		if (this.isKeeping && !leaving) return this.#after(SOON_MS);
		this.isKeeping = true;
		const changes = this.#changes;
		const outcome = await this.keep(leaving);
		this.isKeeping = false;
		if (outcome === 'line_down') this.#after(RETRY_MS);
		else if (changes === this.#changes) this.isUnkept = outcome === 'refused';
	}

	/** Nothing of it is to be kept any more. */
	drop() {
		clearTimeout(this.#timer);
		this.isUnkept = false;
	}

	/** Watches for the page's end, until the returned function is called: then what is not kept yet is kept at once. */
	start(): () => void {
		const leave = () => void this.flush(true);
		addEventListener('pagehide', leave);
		return () => {
			removeEventListener('pagehide', leave);
			void this.flush();
		};
	}

	#after(ms: number) {
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => void this.flush(), ms);
	}
}
