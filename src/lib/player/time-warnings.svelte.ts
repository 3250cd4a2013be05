import { minutesLeft, tellWarning } from '$core/time';
import { rememberTold, toldOf } from './kept';

/** So long a warning stands. */
const SHOWN_MS = 12_000;

/** "Five minutes left.": once each, whatever becomes of the page meanwhile, and gone by itself. */
export class TimeWarnings {
	/** What is shown, in minutes; null: nothing. */
	shown = $state<number | null>(null);
	#told: number[];
	#timer: ReturnType<typeof setTimeout> | undefined;

	constructor(private readonly sittingId: string) {
		this.#told = toldOf(sittingId);
	}

	/** The time that remains, ms, as often as it changes; null: no limit. */
	look(warnAtMinutes: readonly number[], remaining: number | null) {
		const { minutes, told } = tellWarning(warnAtMinutes, remaining, this.#told);
		if (told.length !== this.#told.length) rememberTold(this.sittingId, told);
		this.#told = told;
		if (minutes === null || remaining === null) return;
		// Told late, as after a pause, it is what remains that counts.
		this.shown = minutesLeft(remaining);
		clearTimeout(this.#timer);
		this.#timer = setTimeout(() => (this.shown = null), SHOWN_MS);
	}

	stop() {
		clearTimeout(this.#timer);
	}
}
