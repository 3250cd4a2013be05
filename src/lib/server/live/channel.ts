/** One open server-sent-events line. */
export type Watcher = { send: (frame: string) => void; close: () => void };

/** How many frames a channel remembers for those who come back. */
const KEPT = 500;

/**
 * A line of numbered frames to any number of watchers. The number starts with the server's own mark, so that a
 * number from before a restart is never taken for one from after it.
 */
export class Channel {
	#frames: { id: number; frame: string }[] = [];
	#last = 0;
	readonly watchers = new Set<Watcher>();

	constructor(private readonly boot: string) {}

	/** The id of the newest frame. */
	get position(): string {
		return `${this.boot}-${this.#last}`;
	}

	publish(event: string, data: unknown) {
		const id = ++this.#last;
		const frame = frameOf(event, data, `${this.boot}-${id}`);
		this.#frames.push({ id, frame });
		if (this.#frames.length > KEPT) this.#frames.shift();
		for (const watcher of this.watchers) watcher.send(frame);
	}

	/** What somebody missed since they last heard of us; null: too long ago, or another life: draw the picture anew. */
	since(lastEventId: string | null): string[] | null {
		const [boot, number] = lastEventId?.split('-') ?? [];
		const last = Number(number);
		if (boot !== this.boot || !Number.isInteger(last) || last > this.#last) return null;
		const missed = this.#frames.filter((one) => one.id > last);
		return missed.length === this.#last - last ? missed.map((one) => one.frame) : null;
	}
}

export function frameOf(event: string, data: unknown, id?: string): string {
	return `${id ? `id: ${id}\n` : ''}event: ${event}\ndata: ${JSON.stringify(data)}\n\n`;
}
