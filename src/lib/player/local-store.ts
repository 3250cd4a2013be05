import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { AnswerValue } from '$core/paper';
import { Box, type Sealed } from './box';

/** One revision of one answer, on its way to the server. */
export type Revision = {
	seq: number;
	questionId: string;
	value: AnswerValue;
	marked: boolean;
	struck: string[];
	inViewMs: number;
};
type Content = Omit<Revision, 'seq'>;

/** The sitting and device that a revision belongs to. Another candidate on the same machine has another key. */
export type Place = { sittingId: string; epoch: number };

/** Sealed where the browser can; as it is where it can't, rather than not at all. */
type Body<T> = Sealed | { plain: T };

interface Schema extends DBSchema {
	queue: { key: [string, number, number]; value: Place & { seq: number; body: Body<Content> } };
	sequence: { key: [string, number]; value: Place & { last: number } };
	/** The paper as the server sent it, for a reload without a line. */
	paper: { key: [string, number]; value: Place & { body: Body<unknown> } };
	/** The answers as they stand, sent or not. */
	given: { key: [string, number, string]; value: Place & { questionId: string; body: Body<Content> } };
}

/**
 * What the device keeps until the server has it, and what it needs to go on when the page is loaded anew without a line.
 * Two tabs share it, so numbers are drawn and revisions stored in one transaction. Where a browser refuses storage,
 * memory takes its place: then a reload without a line would lose what has not been sent, and `isDurable` says so.
 */
export class LocalStore {
	#memory: (Revision & Place)[] = [];
	#memorySeq = 0;
	#adding: Promise<unknown> = Promise.resolve();

	private constructor(
		private readonly db: IDBPDatabase<Schema> | null,
		private readonly box: Box | null
	) {}

	/** @param key with which everything is sealed; none: as it is */
	static async open(key: string | null = null): Promise<LocalStore> {
		const box = key === null ? null : await Box.of(key);
		try {
			const db = await openDB<Schema>('otium-player', 2, {
				upgrade(fresh, from) {
					// The first version kept its rows in another shape; what it had not sent is not readable by this one.
					if (from === 1) for (const name of ['queue', 'sequence'] as const) fresh.deleteObjectStore(name);
					fresh.createObjectStore('queue', { keyPath: ['sittingId', 'epoch', 'seq'] });
					fresh.createObjectStore('sequence', { keyPath: ['sittingId', 'epoch'] });
					fresh.createObjectStore('paper', { keyPath: ['sittingId', 'epoch'] });
					fresh.createObjectStore('given', { keyPath: ['sittingId', 'epoch', 'questionId'] });
				}
			});
			return new LocalStore(db, box);
		} catch {
			return new LocalStore(null, box);
		}
	}

	get isDurable(): boolean {
		return this.db !== null;
	}

	/** The server knows numbers up to this one; ours go on above it. */
	async startAfter(place: Place, last: number): Promise<void> {
		if (!this.db) {
			this.#memorySeq = Math.max(this.#memorySeq, last);
			return;
		}
		const tx = this.db.transaction('sequence', 'readwrite');
		const known = await tx.store.get([place.sittingId, place.epoch]);
		await tx.store.put({ ...place, last: Math.max(known?.last ?? 0, last) });
		await tx.done;
	}

	/** Numbers a revision and keeps it, and with it how the answer stands; in the order of the calls, whatever sealing takes. */
	add(place: Place, content: Content): Promise<Revision> {
		const added = this.#adding.then(() => this.#add(place, content));
		this.#adding = added.catch(() => {});
		return added;
	}

	async #add(place: Place, content: Content): Promise<Revision> {
		if (!this.db) {
			const numbered = { ...content, seq: ++this.#memorySeq };
			this.#memory.push({ ...numbered, ...place });
			return numbered;
		}
		// Sealed before the transaction: one that waits for anything but itself is over.
		const body = await this.#seal(content);
		const tx = this.db.transaction(['queue', 'sequence', 'given'], 'readwrite');
		const known = await tx.objectStore('sequence').get([place.sittingId, place.epoch]);
		const seq = (known?.last ?? 0) + 1;
		await tx.objectStore('sequence').put({ ...place, last: seq });
		await tx.objectStore('queue').put({ ...place, seq, body });
		await tx.objectStore('given').put({ ...place, questionId: content.questionId, body });
		await tx.done;
		return { ...content, seq };
	}

	/** What has not been acknowledged, oldest first. */
	async waiting(place: Place): Promise<Revision[]> {
		if (!this.db) {
			return this.#memory.map(({ seq, questionId, value, marked, struck, inViewMs }) => ({
				seq,
				questionId,
				value,
				marked,
				struck,
				inViewMs
			}));
		}
		const rows = await this.db.getAll('queue', this.#all(place, 0, Infinity));
		const opened = await Promise.all(
			rows.map(async ({ seq, body }) => {
				const content = await this.#open(body);
				return content && { ...content, seq };
			})
		);
		return opened.filter((revision) => revision !== null);
	}

	/** The server has these. */
	async remove(place: Place, seqs: number[]): Promise<void> {
		if (!this.db) {
			this.#memory = this.#memory.filter((revision) => !seqs.includes(revision.seq));
			return;
		}
		const tx = this.db.transaction('queue', 'readwrite');
		for (const seq of seqs) void tx.store.delete([place.sittingId, place.epoch, seq]);
		await tx.done;
	}

	/** Keeps the paper for a reload without a line. */
	async keepPaper(place: Place, paper: unknown): Promise<void> {
		if (!this.db) return;
		const body = await this.#seal(paper);
		await this.db.put('paper', { ...place, body });
	}

	/** The paper as it was kept, and the answers as they stood; null: nothing is kept, or not for this key. */
	async keptPaper<T>(place: Place): Promise<{ paper: T; given: Content[] } | null> {
		const row = await this.db?.get('paper', [place.sittingId, place.epoch]);
		if (!row) return null;
		const paper = await this.#open(row.body as Body<T>);
		if (paper === null) return null;
		const rows = await this.db!.getAll('given', this.#all(place, '', '\uffff'));
		const given = await Promise.all(rows.map((one) => this.#open(one.body)));
		return { paper, given: given.filter((one) => one !== null) };
	}

	/** The sitting is over on this device: nothing of the paper stays, but for what the server does not have yet. */
	async forgetPaper(place: Place): Promise<void> {
		if (!this.db) return;
		const tx = this.db.transaction(['paper', 'given'], 'readwrite');
		await tx.objectStore('paper').delete([place.sittingId, place.epoch]);
		await tx.objectStore('given').delete(this.#all(place, '', '\uffff'));
		await tx.done;
	}

	#all(place: Place, from: number | string, to: number | string) {
		return IDBKeyRange.bound([place.sittingId, place.epoch, from], [place.sittingId, place.epoch, to]);
	}

	async #seal<T>(value: T): Promise<Body<T>> {
		return this.box ? this.box.seal(value) : { plain: value };
	}

	async #open<T>(body: Body<T>): Promise<T | null> {
		if ('plain' in body) return body.plain;
		return this.box ? this.box.open<T>(body) : null;
	}
}
