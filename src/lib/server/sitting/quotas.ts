import { RateLimiterMemory } from 'rate-limiter-flexible';
import { fail } from '$core/problem';

/** What one sitting may bring in so many seconds; an honest device stays far below, and is only slowed down beyond. */
const QUOTAS = {
	/** Bytes: a long essay that is told whole at every pause of the typing brings two megabytes a minute. */
	answers: { points: 8 * 1024 * 1024, duration: 60 },
	/** Of one kind: whoever leaves the screen every few seconds is told of all the same. */
	lapses: { points: 200, duration: 600 },
	hands: { points: 60, duration: 600 },
	pictures: { points: 200, duration: 600 }
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
		try {
			await this.#limiters[kind].consume(`${sittingId} ${within}`, amount);
		} catch (spent) {
			if (spent instanceof Error) throw spent;
			fail('slow_down', { waitSeconds: Math.ceil((spent as { msBeforeNext: number }).msBeforeNext / 1_000) });
		}
	}
}
