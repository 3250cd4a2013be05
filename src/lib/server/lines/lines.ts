import { fail } from '$core/problem';

/** So many lines of one person, or of one device, are open at once; a browser opens six to one server. */
const MOST_OPEN = 12;

type Stream = ReadableStream<Uint8Array>;

/** What an open line and those who hold it have of each other. */
export type Hold = {
	/** Ends the line. Set by the line when it opens. */
	end: () => void;
	/** The line calls this once it has ended, for whatever reason. */
	left: () => void;
};

/** Of a line that ends by itself or never. */
export const heldByNobody = (): Hold => ({ end() {}, left() {} });

/**
 * The open lines of everybody, by who holds them, so that a line ends with what gave the right to it: a sign-out, a role
 * that was taken, a device that was freed.
 */
export class Lines {
	#open = new Map<string, Set<() => void>>();

	/**
	 * A stream that ends when one of its holders is told to. Its place is taken before it is made, so that many at once are
	 * counted too.
	 * @param holders whose it is; the first may have so many and no more
	 * @param make null: there is nothing to tell
	 * @throws ProblemError too_many_lines
	 */
	async hold(holders: string[], make: (hold: Hold) => Promise<Stream | null>): Promise<Stream | null> {
		if ((this.#open.get(holders[0])?.size ?? 0) >= MOST_OPEN) fail('too_many_lines');
		let isOpen = true;
		const left = () => {
			isOpen = false;
			for (const holder of holders) {
				const lines = this.#open.get(holder);
				lines?.delete(end);
				if (lines?.size === 0) this.#open.delete(holder);
			}
		};
		const hold: Hold = { end() {}, left };
		const end = () => {
			left();
			hold.end();
		};
		for (const holder of holders) this.#open.set(holder, (this.#open.get(holder) ?? new Set()).add(end));
		let stream: Stream | null = null;
		try {
			stream = await make(hold);
		} finally {
			if (!stream) left();
		}
		// Told to end while it was made.
		if (!isOpen) hold.end();
		return stream;
	}

	/** The sign-ins that hold a line now, by their tokens' hashes. */
	signIns(): string[] {
		const prefix = heldBy.signIn('');
		return [...this.#open.keys()].flatMap((holder) => (holder.startsWith(prefix) ? [holder.slice(prefix.length)] : []));
	}

	/** Ends every line that this one holds. */
	end(holder: string): void {
		for (const end of [...(this.#open.get(holder) ?? [])]) end();
	}
}

/** By what a line is held. */
export const heldBy = {
	staff: (staffId: string) => `staff ${staffId}`,
	signIn: (tokenHash: string) => `sign-in ${tokenHash}`,
	device: (sittingId: string, epoch: number) => `device ${sittingId} ${epoch}`,
	client: (deviceId: string) => `client ${deviceId}`
};
