import { ask } from './ask';
import { LocalStore, type Place, type QueueRow } from './local-store';
import { cut } from './batch';

const TRY_AGAIN_MS = 15_000;

type Sent = Place & { seq: number; iv?: string; data?: string; plain?: unknown };
type Answer = { taken: (Place & { seqs: number[] })[]; refused: (Place & { seqs: number[] })[]; kept: number };

/**
 * What earlier lives of this device did not get to the server: before it was freed and signed in anew, before a lid was
 * closed and opened after the end, or by somebody else who sat at it. It goes as it lies there, sealed: the server has the
 * key, so that nobody at the device needs it, and the seal proves where it comes from.
 */
export class Leftovers {
	/** So many of this sitting's answers have reached the server late, without counting by themselves. */
	kept = $state(0);
	#timer: ReturnType<typeof setTimeout> | undefined;
	#stopped = false;
	/** What the server will never take: not sent again by this page. */
	// Nothing of it is shown.
	// eslint-disable-next-line svelte/prefer-svelte-reactivity
	#refused = new Set<string>();

	/** @param live the place whose own outbox is at work, and is left to it; null: none is */
	constructor(private readonly live: () => Place | null) {}

	/** Sends what there is, now and whenever the line comes back, until the returned function is called. */
	start(): () => void {
		const flush = () => void this.flush();
		addEventListener('online', flush);
		flush();
		return () => {
			this.#stopped = true;
			clearTimeout(this.#timer);
			removeEventListener('online', flush);
		};
	}

	/** Resolves when the server has everything, or when it can't be reached. */
	async flush(): Promise<void> {
		clearTimeout(this.#timer);
		const store = await LocalStore.open();
		for (;;) {
			const rows = (await store.leftovers()).filter((row) => !this.#isLive(row) && !this.#refused.has(nameOf(row)));
			if (rows.length === 0 || this.#stopped) return;
			const batch = cut(await Promise.all(rows.slice(0, 200).map(toSent)));
			const answer = await ask<Answer>('POST', '/sit/api/leftovers', { rows: batch });
			if (!answer.ok || !Array.isArray(answer.data.taken)) {
				if (!this.#stopped) this.#timer = setTimeout(() => void this.flush(), TRY_AGAIN_MS);
				return;
			}
			for (const { seqs, ...place } of answer.data.taken) await store.remove(place, seqs);
			for (const { seqs, ...place } of answer.data.refused)
				for (const seq of seqs) this.#refused.add(nameOf({ ...place, seq }));
			this.kept += answer.data.kept;
			// A device that can't remove what was taken would send it for ever.
			for (const row of batch) this.#refused.add(nameOf(row));
		}
	}

	#isLive(row: QueueRow): boolean {
		const live = this.live();
		return live?.sittingId === row.sittingId && live.epoch === row.epoch;
	}
}

const nameOf = ({ sittingId, epoch, seq }: Place & { seq: number }) => `${sittingId} ${epoch} ${seq}`;

async function toSent({ sittingId, epoch, seq, body }: QueueRow): Promise<Sent> {
	if ('plain' in body) return { sittingId, epoch, seq, plain: body.plain };
	return { sittingId, epoch, seq, iv: base64(body.iv), data: base64(new Uint8Array(body.data)) };
}

function base64(bytes: Uint8Array): string {
	let text = '';
	for (const byte of bytes) text += String.fromCharCode(byte);
	return btoa(text);
}
