import { setTimeout as sleep } from 'node:timers/promises';
import { RateLimiterMemory } from 'rate-limiter-flexible';
import { networkOf } from '$core/access';
import { latest } from '../latest';

/** NIST SP 800-63B, section 5.2.2: no more than 100 consecutive failed attempts on one account. */
export const MOST_IN_A_ROW = 100;
/** So many misses are free: people mistype. */
const FREE = 5;
const LONGEST_WAIT_S = 300;
/** What is guessed a hundred times in a row rests for so long. */
const REST_S = 3_600;
/** In ten minutes from one address. A college of a thousand behind one address mistypes some hundred times. */
const ADDRESS_MISSES = { door: 300, word: 300, staff: 40 };
/** From an address beyond that, each further miss is answered so late; what is right is answered at once. */
const HELD_MS = 1_000;

/** What anybody may ask for, in ten minutes from one address. */
const ASKINGS = {
	/** A thousand sealed clients that prove themselves anew every minute, twice over. */
	challenge: 20_000,
	/** A school that checks a pile of receipts. */
	receipt: 1_000,
	/** A college that signs in at eight, each of its staff a few times. */
	passkey: 2_000,
	link: 300,
	/** Few of a house forget their password in the same ten minutes. */
	forgot: 100,
	enrol: 20_000,
	/** Of devices that are signed in to nothing: a shared computer brings what the one before had not sent. */
	leftovers: 1_000,
	rehearsal: 5_000,
	/** A class that asks for something, each a few times. */
	request: 200
};

/** What is guessed: each has a budget of its own, so that guessing at one shuts nobody out of another. */
export type Guessed = 'staff' | 'door' | 'word';

/** A try that was counted before it was looked at. */
export type Try = {
	/** Seconds to wait before the next; 0: this one may be looked at. */
	wait: number;
	/** Until when its target waits if it turns out a miss, epoch ms; null: it need not. */
	until: number | null;
	/** What counts it, to be given back or forgiven. */
	target: string;
	/** The same for the browser that asked, which forgiving makes a known one; null: it is not known by anything. */
	browserTarget: string | null;
	/** Strangers have used up the tries for this target; this one may be looked at, and its asker is told nothing of it. */
	isResting: boolean;
	/** Misses in a row from anywhere, this one included if it is one. */
	misses: number;
};

/**
 * Limits on wrong tries, counted for what is guessed (an account, a candidate at a door, a word) and by who guesses (an
 * address; of the sixth version, its network). Whoever is right passes, whatever others have tried from the same address:
 * a school behind one address is not shut out by one of its pupils.
 */
export class TryLimits {
	/** From one address. */
	#own = new RateLimiterMemory({ points: MOST_IN_A_ROW, duration: REST_S });
	/** From anywhere. */
	#all = new RateLimiterMemory({ points: MOST_IN_A_ROW, duration: REST_S });
	#addresses = new RateLimiterMemory({ points: 1, duration: 600 });
	#askings = new RateLimiterMemory({ points: 1, duration: 600 });
	#waits = new Map<string, number>();
	/** Targets with the browsers that were right there, or were vouched for. */
	#trusted = latest<true>(20_000);
	#counting: Promise<unknown> = Promise.resolve();

	/**
	 * Counts a try before it is looked at, so that tries which come at once are counted one after another.
	 * @param known the browser that asks, which was right before: it is counted for itself alone, so that nobody's misses
	 * elsewhere keep it out; null: a stranger's
	 * @param browser the browser that asks, which may have been right before, or been vouched for, with this very target
	 * @param looksOn at a target that rests, a try that its own browser or address may still make is looked at
	 */
	consume(
		guessed: Guessed,
		what: string,
		address: string,
		now: number,
		{ free = FREE, known: proven = null as string | null, browser = null as string | null, looksOn = false } = {}
	): Promise<Try> {
		const everybody = `${guessed}:${what.replaceAll('|', ' ')}`;
		const browserTarget = browser === null ? null : `${everybody}|${KNOWN}${browser}`;
		const known = proven ?? (browserTarget !== null && this.#trusted.has(browserTarget) ? browser : null);
		const target = `${everybody}|${known === null ? networkOf(address) : `${KNOWN}${known}`}`;
		const counted = this.#counting.then(async (): Promise<Try> => {
			const resting = known !== null ? 0 : await rest(this.#all, everybody);
			const isResting = resting > 0 && looksOn;
			const wait = Math.max(await this.#waitFor(target, now), isResting ? 0 : resting);
			if (wait > 0) return { wait, until: null, target, browserTarget, isResting: false, misses: 0 };
			const misses = known !== null ? 0 : (await this.#all.penalty(everybody, 1)).consumedPoints;
			return { wait: 0, until: await this.#count(target, now, free), target, browserTarget, isResting, misses };
		});
		this.#counting = counted.catch(() => {});
		return counted;
	}

	/** It was wrong. From an address that has missed too often, the answer comes late. */
	async missed(guessed: Guessed, address: string): Promise<void> {
		const misses = await this.#addresses.penalty(`${guessed}:${networkOf(address)}`, 1);
		if (misses.consumedPoints > ADDRESS_MISSES[guessed]) await sleep(HELD_MS);
	}

	/** It was right after all: the row of misses of this target from here ends, and no other. */
	async succeeded({ target, browserTarget }: Pick<Try, 'target' | 'browserTarget'>): Promise<void> {
		if (browserTarget !== null) this.#trusted.set(browserTarget, true);
		// Who was known has not answered for the strangers.
		if (isOfKnown(target)) await this.#forget(target);
		else await this.forgive(target);
	}

	/** It was neither right nor wrong: what was typed was never compared. */
	async refund({ target }: Pick<Try, 'target'>): Promise<void> {
		const misses = await this.#own.reward(target, 1);
		if (!isOfKnown(target)) await this.#all.reward(withoutAddress(target), 1);
		if (misses.consumedPoints <= FREE) this.#waits.delete(target);
	}

	/**
	 * Somebody vouches for whoever waits. A browser that was vouched for is known from then on: strangers who go on guessing
	 * do not shut it out again.
	 */
	async forgive(target: string): Promise<void> {
		await this.#forget(target);
		if (isOfKnown(target)) this.#trusted.set(target, true);
		else await this.#all.delete(withoutAddress(target));
	}

	async #forget(target: string): Promise<void> {
		await this.#own.delete(target);
		this.#waits.delete(target);
	}

	/** Counts what anybody may ask for. Seconds to wait before the next; 0: there it is. */
	async asked(what: keyof typeof ASKINGS, address: string): Promise<number> {
		const asked = await this.#askings.penalty(`${what} ${networkOf(address)}`, 1);
		return asked.consumedPoints > ASKINGS[what] ? Math.ceil(asked.msBeforeNext / 1_000) : 0;
	}

	async #waitFor(target: string, now: number): Promise<number> {
		const until = this.#waits.get(target) ?? 0;
		return Math.max(await rest(this.#own, target), Math.ceil((until - now) / 1_000));
	}

	/** After the free ones, each miss doubles the wait. */
	async #count(target: string, now: number, free: number): Promise<number | null> {
		const misses = await this.#own.penalty(target, 1);
		const over = misses.consumedPoints - free;
		if (over <= 0) return null;
		if (this.#waits.size > 10_000) for (const [key, until] of this.#waits) if (until < now) this.#waits.delete(key);
		const until = now + Math.min(2 ** over, LONGEST_WAIT_S) * 1_000;
		this.#waits.set(target, until);
		return until;
	}
}

/** Stands before a known browser, where a stranger's address would. */
const KNOWN = 'known ';
const isOfKnown = (target: string) => target.slice(target.lastIndexOf('|') + 1).startsWith(KNOWN);

/** A target as it is counted from anywhere. Addresses of the sixth version hold colons, so they stand behind a bar. */
const withoutAddress = (target: string) => target.slice(0, target.lastIndexOf('|'));

/** Seconds that a target still rests after too many in a row; 0: it does not. */
async function rest(limiter: RateLimiterMemory, target: string): Promise<number> {
	const misses = await limiter.get(target);
	return misses && misses.consumedPoints >= MOST_IN_A_ROW ? Math.ceil(misses.msBeforeNext / 1_000) : 0;
}
