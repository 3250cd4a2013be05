import { RateLimiterMemory } from 'rate-limiter-flexible';
import { fail } from '$core/problem';

/** What one sitting may bring in so many seconds; an honest device stays far below, and is only slowed down beyond. */
const QUOTAS = {
	/** Bytes: a long essay that is told whole at every pause of the typing brings two megabytes a minute. */
	answers: { points: 8 * 1024 * 1024, duration: 60 },
	/** Of one kind: whoever leaves the screen every few seconds is told of all the same. */
	lapses: { points: 200, duration: 600 },
	hands: { points: 60, duration: 600 },
	/** Of one browser at the door of one sitting; somebody who is unsure says so a few times. */
	arrivals: { points: 60, duration: 600 },
	/** To begin, to hand in, to sit again, to say what the device check found: each leaves a row. */
	commands: { points: 120, duration: 600 },
	/** All that one device asks for: it beats, saves and fetches a few times a second at the most. */
	requests: { points: 6_000, duration: 600 },
	pictures: { points: 200, duration: 600 },
	/** Photos of working, each drawn afresh. */
	files: { points: 60, duration: 600 },
	/** By address: a whole class may practise behind one. */
	practice: { points: 3_000, duration: 600 },
	/** Of one kind, noted of a device: what goes on and on is known by then. */
	notes: { points: 5, duration: 600 }
} as const;
type Kind = keyof typeof QUOTAS;

/** Keeps one device from filling the disk, the logbook and the proctor's screen. */
export class Quotas {
	#limiters = Object.fromEntries(
		Object.entries(QUOTAS).map(([kind, quota]) => [kind, new RateLimiterMemory(quota)])
	) as Record<Kind, RateLimiterMemory>;

	/**
	 * Takes so much of a sitting's quota.
	 * @param within a part of its own of the quota
	 * @throws ProblemError slow_down when nothing is left of it now
	 */
	async take(kind: Kind, sittingId: string, amount = 1, within = ''): Promise<void> {
		const waitMs = await this.#spend(kind, sittingId, amount, within);
		if (waitMs !== null) fail('slow_down', { waitSeconds: Math.ceil(waitMs / 1_000) });
	}

	/** Takes one, if there is one left now. */
	async has(kind: Kind, sittingId: string, within: string): Promise<boolean> {
		return (await this.#spend(kind, sittingId, 1, within)) === null;
	}

	/** null: it was there; else for how long, in ms, it is not. */
	async #spend(kind: Kind, sittingId: string, amount: number, within: string): Promise<number | null> {
		try {
			await this.#limiters[kind].consume(`${sittingId} ${within}`, amount);
			return null;
		} catch (spent) {
			if (spent instanceof Error) throw spent;
			return (spent as { msBeforeNext: number }).msBeforeNext;
		}
	}
}
