import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { AnswerValue } from '$core/paper';

/** One revision of one answer, on its way to the server. */
export type Revision = {
	seq: number;
	questionId: string;
	value: AnswerValue;
	marked: boolean;
	struck: string[];
	inViewMs: number;
};

/** The sitting and device that a revision belongs to. Another candidate on the same machine has another key. */
export type Place = { sittingId: string; epoch: number };

interface Schema extends DBSchema {
	queue: { key: [string, number, number]; value: Revision & Place };
	sequence: { key: [string, number]; value: Place & { last: number } };
}

/**
 * What the device keeps until the server has it. Two tabs share it, so numbers are drawn and revisions stored in one
 * transaction. Where a browser refuses storage, memory takes its place: then a reload without a line would lose what
 * has not been sent, and `isDurable` says so.
 */
export class LocalStore {
	#memory: (Revision & Place)[] = [];
	#memorySeq = 0;

	private constructor(private readonly db: IDBPDatabase<Schema> | null) {}

	static async open(): Promise<LocalStore> {
		try {
			const db = await openDB<Schema>('otium-player', 1, {
				upgrade(fresh) {
					fresh.createObjectStore('queue', { keyPath: ['sittingId', 'epoch', 'seq'] });
					fresh.createObjectStore('sequence', { keyPath: ['sittingId', 'epoch'] });
				}
			});
			return new LocalStore(db);
		} catch {
			return new LocalStore(null);
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

	/** Numbers a revision and keeps it. */
	async add(place: Place, revision: Omit<Revision, 'seq'>): Promise<Revision> {
		if (!this.db) {
			const numbered = { ...revision, seq: ++this.#memorySeq };
			this.#memory.push({ ...numbered, ...place });
			return numbered;
		}
		const tx = this.db.transaction(['queue', 'sequence'], 'readwrite');
		const known = await tx.objectStore('sequence').get([place.sittingId, place.epoch]);
		const numbered = { ...revision, seq: (known?.last ?? 0) + 1 };
		await tx.objectStore('sequence').put({ ...place, last: numbered.seq });
		await tx.objectStore('queue').put({ ...numbered, ...place });
		await tx.done;
		return numbered;
	}

	/** What has not been acknowledged, oldest first. */
	async waiting(place: Place): Promise<Revision[]> {
		const all = this.db
			? await this.db.getAll(
					'queue',
					IDBKeyRange.bound([place.sittingId, place.epoch, 0], [place.sittingId, place.epoch, Infinity])
				)
			: this.#memory;
		return all.map(({ seq, questionId, value, marked, struck, inViewMs }) => ({
			seq,
			questionId,
			value,
			marked,
			struck,
			inViewMs
		}));
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
}
