import { hash, verify } from '@node-rs/argon2';
import { newToken } from './tokens';

/** OWASP's parameters for argon2id: 19 MiB, two passes, one lane. */
const ARGON2ID = { memoryCost: 19_456, timeCost: 2, parallelism: 1 };
/** So many are worked out at once: each takes its memory, and the threads that do it serve files as well. */
const AT_ONCE = 2;
/** More than these at the same time are not people. */
const MOST_WAITING = 100;

/** Hashes and compares passwords, few at a time. */
export class Passwords {
	#running = 0;
	#waiting: (() => void)[] = [];
	/** So that an unknown name takes as long as a wrong password. */
	#decoy: Promise<string> | null = null;

	hash(password: string): Promise<string> {
		return this.#inTurn(() => hash(password, ARGON2ID));
	}

	/** Whether more than can be served wait already. */
	get isFull(): boolean {
		return this.#waiting.length >= MOST_WAITING;
	}

	/** @param hashed null: there is nobody of that name, which takes as long to say */
	async isRight(hashed: string | null, password: string): Promise<boolean> {
		this.#decoy ??= hash(newToken(), ARGON2ID);
		const against = hashed ?? (await this.#decoy);
		const right = await this.#inTurn(() => verify(against, password));
		return right && hashed !== null;
	}

	async #inTurn<T>(work: () => Promise<T>): Promise<T> {
		if (this.#running >= AT_ONCE) await new Promise<void>((next) => this.#waiting.push(next));
		else this.#running++;
		try {
			return await work();
		} finally {
			// The place goes straight to who waits longest.
			const next = this.#waiting.shift();
			if (next) next();
			else this.#running--;
		}
	}
}
