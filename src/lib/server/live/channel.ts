import type { RoomPicture } from '$core/room';
import { mapInParts } from '../event-loop';

/** One event of a stream, as it goes over the line (server-sent events, HTML Standard 9.2). */
export type Frame = {
	event: string;
	/** Encoded once, for all who watch. */
	bytes: Uint8Array;
	/** The event's data as JSON. */
	data: string;
};

/** One open server-sent-events line. */
export type Watcher = { send: (frame: Frame) => void; close: () => void };

/** How many frames a channel remembers for those who come back. */
const KEPT = 500;
/** So many seats are written before everything else has its turn. */
const AT_ONCE = 500;
const encoder = new TextEncoder();

/**
 * A line of numbered frames to any number of watchers. The number starts with the channel's own mark, so that a
 * number from before a restart is never taken for one from after it.
 */
export class Channel {
	#frames: { id: number; frame: Frame }[] = [];
	#last = 0;
	readonly watchers = new Set<Watcher>();

	constructor(private readonly mark: string) {}

	/** The id of the newest frame. */
	get position(): string {
		return `${this.mark}-${this.#last}`;
	}

	publish(event: string, data: unknown) {
		const id = ++this.#last;
		const frame = frameOf(event, data, `${this.mark}-${id}`);
		this.#frames.push({ id, frame });
		if (this.#frames.length > KEPT) this.#frames.shift();
		for (const watcher of this.watchers) watcher.send(frame);
	}

	/** What somebody missed since they last heard of us; null: too long ago, or another life: draw the picture anew. */
	since(lastEventId: string | null): Frame[] | null {
		const [mark, number] = lastEventId?.split('-') ?? [];
		const last = Number(number);
		if (mark !== this.mark || !Number.isInteger(last) || last > this.#last) return null;
		const missed = this.#frames.filter((one) => one.id > last);
		return missed.length === this.#last - last ? missed.map((one) => one.frame) : null;
	}
}

export function frameOf(event: string, data: unknown, id?: string): Frame {
	return encoded(event, JSON.stringify(data), id);
}

/** A room's picture as a frame. It may be megabytes: written part by part, giving way in between. */
export async function pictureFrame({ seats, ...rest }: RoomPicture, id?: string): Promise<Frame> {
	const written = await mapInParts(seats, AT_ONCE, (part) => part.map((seat) => JSON.stringify(seat)));
	return encoded('picture', `${JSON.stringify(rest).slice(0, -1)},"seats":[${written.join(',')}]}`, id);
}

/** The same frame as one of several rooms'; a beat is everybody's. */
export function namedAfter(sessionId: string, frame: Frame): Frame {
	return frame.event === 'beat' ? frame : encoded(`${frame.event}:${sessionId}`, frame.data);
}

function encoded(event: string, data: string, id?: string): Frame {
	return { event, data, bytes: encoder.encode(`${id ? `id: ${id}\n` : ''}event: ${event}\ndata: ${data}\n\n`) };
}
