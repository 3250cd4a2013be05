import type { SittingPicture } from '$core/room';
import { gather } from '../event-loop';
import type { House } from '../house';
import { drawSittings } from './sitting-picture';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'now'>;
type Waiting = { resolve: (picture: SittingPicture) => void; reject: (error: unknown) => void };

/** So many are drawn in one turn of the event loop. */
const GROUP = 30;

/**
 * Draws candidates' pictures for their open lines. What is asked for while others are drawn is drawn together: when a
 * whole room comes back at once, most of a picture's cost is asking the database, and that costs the same for thirty.
 */
export class SittingPictures {
	#asked = new Map<string, Waiting[]>();
	#running = false;

	constructor(private readonly house: Needs) {}

	/** As it is after this was called, or later. */
	draw(sittingId: string): Promise<SittingPicture> {
		return new Promise((resolve, reject) => {
			const waiting = this.#asked.get(sittingId) ?? [];
			this.#asked.set(sittingId, [...waiting, { resolve, reject }]);
			if (!this.#running) void this.#run();
		});
	}

	async #run() {
		this.#running = true;
		while (this.#asked.size > 0) {
			await gather(() => this.#asked.size, GROUP);
			const group = new Map([...this.#asked].slice(0, GROUP));
			for (const id of group.keys()) this.#asked.delete(id);
			await this.#drawGroup(group);
		}
		this.#running = false;
	}

	async #drawGroup(group: Map<string, Waiting[]>): Promise<void> {
		try {
			const pictures = await drawSittings(this.house.db, [...group.keys()], this.house.now());
			for (const [id, waiting] of group) for (const one of waiting) one.resolve(pictures.get(id)!);
		} catch (error) {
			// One that can't be drawn keeps no other from being drawn.
			if (group.size > 1) for (const [id, waiting] of group) await this.#drawGroup(new Map([[id, waiting]]));
			else for (const waiting of group.values()) for (const one of waiting) one.reject(error);
		}
	}
}
