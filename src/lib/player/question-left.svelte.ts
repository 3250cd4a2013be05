import type { SittingPicture } from '$core/room';
import type { QuestionTime } from '$core/time';
import type { ServerClock } from '$ui/server-clock.svelte';

/** So much before its end typing no longer waits until it rests, and the screen says that little is left, ms. */
const LAST_MS = 10_000;

type Shown = { readonly at: number; readonly questionTime: QuestionTime | null };

/** How the time for the question on the screen stands, where each has its own, by the server's clock. */
export class QuestionLeft {
	constructor(
		private readonly picture: () => SittingPicture,
		private readonly paper: Shown,
		private readonly clock: ServerClock
	) {}

	/** What came with the question, or with the picture, which knows of holds since; of another question nothing. */
	#time = $derived.by(() => {
		const { question, standing } = this.picture().time;
		const time = [question, this.paper.questionTime].find((one) => one?.place === this.paper.at);
		return time ? { ...time, standing } : null;
	});

	/** ms; null: it has no time of its own, or has not come yet. */
	remaining = $derived.by(() => {
		if (this.#time === null) return null;
		const { standing, remaining, ends } = this.#time;
		return standing ? remaining : Math.max(0, ends - this.clock.now);
	});

	isUp = $derived(this.remaining === 0);

	isShort = $derived(this.remaining !== null && this.remaining > 0 && this.remaining <= LAST_MS);
}
