import { fail } from '$core/problem';

/** So many lines of one person, or of one device, are open at once; a browser opens six to one server. */
const MOST_OPEN = 12;

type Stream = ReadableStream<Uint8Array>;

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
	async hold(holders: string[], make: () => Promise<Stream | null>): Promise<Stream | null> {
		if ((this.#open.get(holders[0])?.size ?? 0) >= MOST_OPEN) fail('too_many_lines');
		let isOpen = true;
		let cut = () => {};
		const leave = () => {
			isOpen = false;
			for (const holder of holders) {
				const lines = this.#open.get(holder);
				lines?.delete(end);
				if (lines?.size === 0) this.#open.delete(holder);
			}
		};
		const end = () => {
			if (!isOpen) return;
			leave();
			cut();
		};
		for (const holder of holders) this.#open.set(holder, (this.#open.get(holder) ?? new Set()).add(end));

		let reader: ReadableStreamDefaultReader<Uint8Array>;
		try {
			const stream = await make();
			if (!stream) {
				leave();
				return null;
			}
			reader = stream.getReader();
		} catch (error) {
			leave();
			throw error;
		}
		return new ReadableStream<Uint8Array>(
			{
				start(controller) {
					cut = () => {
						void reader.cancel();
						controller.close();
					};
					// Told to end while it was made.
					if (!isOpen) cut();
				},
				async pull(controller) {
					const { value, done } = await reader.read();
					if (done) end();
					else if (isOpen) controller.enqueue(value);
				},
				cancel() {
					leave();
					return reader.cancel();
				}
			},
			{ highWaterMark: 1 }
		);
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
