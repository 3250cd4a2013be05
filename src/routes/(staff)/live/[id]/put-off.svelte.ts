import { SvelteMap } from 'svelte/reactivity';
import type { Need } from '$core/room';
import type { ServerClock } from '$ui/server-clock.svelte';

const A_WHILE_MS = 5 * 60_000;

/** Needs that were put off: each comes back after a while, or when there is more of it. */
export class PutOff {
	#until = new SvelteMap<string, { revision: number; until: number }>();

	constructor(private readonly clock: ServerClock) {}

	put(need: Need, forMs = A_WHILE_MS) {
		this.#until.set(need.key, { revision: need.revision, until: this.clock.read() + forMs });
	}

	has(need: Need): boolean {
		const put = this.#until.get(need.key);
		return put !== undefined && put.revision === need.revision && this.clock.now < put.until;
	}

	/** All come back now. */
	clear() {
		this.#until.clear();
	}
}
