import type { SittingPicture } from '$core/room';
import type { ServerClock } from '$ui/server-clock.svelte';

/** The last seconds in which answers are taken, ms: typing no longer waits there until it rests. */
const LAST_MOMENT_MS = 3_000;

/** How a candidate's time stands from moment to moment, by the server's clock. */
export class TimeLeft {
	constructor(
		private readonly picture: () => SittingPicture,
		private readonly clock: ServerClock
	) {}

	/** Working time that is left, ms; null: there is no limit. */
	remaining = $derived.by(() => {
		const { remaining, standing, deadline } = this.picture().time;
		if (remaining === null) return null;
		return standing || deadline === null ? remaining : Math.max(0, deadline - this.clock.now);
	});

	/** Until nothing more is taken, the minutes to finish up included, ms; 0: it is over, or has no end. */
	#untilGraceEnds = $derived.by(() => {
		const { graceEnds } = this.picture().time;
		return graceEnds === null ? 0 : Math.max(0, graceEnds - this.clock.now);
	});

	/** What is left of the minutes to finish up, ms; null: they do not run. */
	grace = $derived(this.remaining === 0 && this.#untilGraceEnds > 0 ? this.#untilGraceEnds : null);

	isUp = $derived(this.remaining === 0);

	/** Nothing more is taken. */
	isClosed = $derived.by(() => this.isUp && this.grace === null && this.picture().time.atTimeUp !== 'flag');

	isLastMoment = $derived.by(
		() => !this.picture().time.standing && this.#untilGraceEnds > 0 && this.#untilGraceEnds < LAST_MOMENT_MS
	);
}
