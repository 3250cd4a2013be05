import { RateLimiterMemory } from 'rate-limiter-flexible';

/** NIST SP 800-63B, section 5.2.2: no more than 100 consecutive failed attempts on one account. */
export const MOST_IN_A_ROW = 100;
/** So many misses are free: people mistype. */
const FREE = 5;
const LONGEST_WAIT_S = 300;
/** In ten minutes. A college of a thousand behind one address mistypes some hundred times; 34 bits are still out of reach. */
const ADDRESS_MISSES = 600;

/** In ten minutes from one address: a thousand sealed clients that prove themselves anew every minute, twice over. */
const CHALLENGES = 20_000;

/**
 * Limits on wrong tries. Misses are counted for the target (an account, a candidate at a door) and for the address they
 * come from; right tries are never counted, so that forty candidates behind one address do not shut each other out.
 */
export class TryLimits {
	#targets = new RateLimiterMemory({ points: MOST_IN_A_ROW, duration: 24 * 3_600 });
	#addresses = new RateLimiterMemory({ points: ADDRESS_MISSES, duration: 600 });
	#challenges = new RateLimiterMemory({ points: CHALLENGES, duration: 600 });
	#waits = new Map<string, number>();
	#counting: Promise<unknown> = Promise.resolve();

	/** Seconds to wait before the next try; 0: go on. */
	async waitFor(target: string, address: string, now: number): Promise<number> {
		const until = this.#waits.get(target) ?? 0;
		const misses = await this.#targets.get(target);
		if (misses && misses.consumedPoints >= MOST_IN_A_ROW) return Math.ceil(misses.msBeforeNext / 1_000);
		const from = await this.#addresses.get(address);
		if (from && from.consumedPoints >= ADDRESS_MISSES) return Math.ceil(from.msBeforeNext / 1_000);
		return Math.max(0, Math.ceil((until - now) / 1_000));
	}

	/**
	 * A miss: after the free ones, each doubles the wait.
	 * @returns until when the target waits, epoch ms; null: it need not
	 */
	async missed(target: string, address: string, now: number, free = FREE): Promise<number | null> {
		await this.#addresses.penalty(address, 1);
		return this.missedToo(target, now, free);
	}

	/** The same miss, counted for something else as well: a whole door, beside the name that was typed at it. */
	async missedToo(target: string, now: number, free: number): Promise<number | null> {
		const misses = await this.#targets.penalty(target, 1);
		const over = misses.consumedPoints - free;
		if (over <= 0) return null;
		if (this.#waits.size > 10_000) for (const [key, until] of this.#waits) if (until < now) this.#waits.delete(key);
		const until = now + Math.min(2 ** over, LONGEST_WAIT_S) * 1_000;
		this.#waits.set(target, until);
		return until;
	}

	/**
	 * Counts a try before it is looked at, so that tries which come at once are counted one after another.
	 * @returns seconds to wait before the next try, 0: this one may be looked at; and until when the target waits if it
	 * turns out a miss
	 */
	consume(target: string, address: string, now: number, free = FREE): Promise<{ wait: number; until: number | null }> {
		const counted = this.#counting.then(async () => {
			const wait = await this.waitFor(target, address, now);
			return { wait, until: wait > 0 ? null : await this.missed(target, address, now, free) };
		});
		this.#counting = counted.catch(() => {});
		return counted;
	}

	/** A try that was counted was right after all: it ends the row of misses, and the address has not missed. */
	async giveBack(target: string, address: string) {
		await this.succeeded(target);
		await this.#addresses.reward(address, 1);
	}

	/** A try that was counted was neither right nor wrong: what was typed was never compared. */
	async refund(target: string, address: string) {
		const misses = await this.#targets.reward(target, 1);
		if (misses.consumedPoints <= FREE) this.#waits.delete(target);
		await this.#addresses.reward(address, 1);
	}

	/** Counts a challenge that is asked for. Seconds to wait before the next; 0: there it is. */
	async challenged(address: string): Promise<number> {
		const asked = await this.#challenges.penalty(address, 1);
		return asked.consumedPoints > CHALLENGES ? Math.ceil(asked.msBeforeNext / 1_000) : 0;
	}

	/** A right try, or somebody who vouches, ends the row of misses. */
	async succeeded(target: string) {
		await this.#targets.delete(target);
		this.#waits.delete(target);
	}
}
