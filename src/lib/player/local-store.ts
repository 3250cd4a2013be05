import { openDB, type DBSchema, type IDBPDatabase } from 'idb';
import type { Revision } from '$core/paper';
import { Box, type Sealed } from './box';

type Content = Omit<Revision, 'seq'>;

/** The sitting and device that a revision belongs to. Another candidate on the same machine has another key. */
export type Place = { sittingId: string; epoch: number };

/** Sealed where the browser can; as it is where it can't, rather than not at all. */
export type Body<T> = Sealed | { plain: T };
/** A revision as it lies on the device. */
export type QueueRow = Place & { seq: number; body: Body<Content> };

interface Schema extends DBSchema {
	queue: { key: [string, number, number]; value: QueueRow };
	sequence: { key: [string, number]; value: Place & { last: number } };
	/** The paper as the server sent it, for a reload without a line. */
	paper: { key: [string, number]; value: Place & { body: Body<unknown> } };
	/** The answers as they stand, sent or not. */
	given: { key: [string, number, string]; value: Place & { questionId: string; body: Body<Content> } };
	/** Pictures and sound of the paper, for the same. */
	media: { key: [string, number, string]; value: Place & { file: string; type: string; body: Body<ArrayBuffer> } };
}

/** A write that failed may have drawn a number all the same: what goes on in memory leaves room for it. */
const ROOM = 1_000;

/**
 * What the device keeps until the server has it, and what it needs to go on when the page is loaded anew without a line.
 * Two tabs share it, so numbers are drawn and revisions stored in one transaction.
 *
 * No call fails: where the browser refuses storage, at first or in mid-exam, memory takes its place. Then a reload without
 * a line would lose what has not been sent, and `isDurable` says so.
 */
export class LocalStore {
	/** Called when it can no longer keep anything on the device, and when it can again. */
	onDurable: (isDurable: boolean) => void = () => {};
	#db: IDBPDatabase<Schema> | null = null;
	/** What waits, as this page knows it: a device that can't be read later takes nothing of it away. */
	#waiting = new Map<string, Map<number, Revision>>();
	/** Places whose rows of earlier lives have been read from the device. */
	#read = new Set<string>();
	/** The highest number known of each place, so that memory goes on above it. */
	#last = new Map<string, number>();
	#adding: Promise<unknown> = Promise.resolve();

	private constructor(private readonly box: Box | null) {}

	/** @param key with which everything is sealed; none: as it is */
	static async open(key: string | null = null): Promise<LocalStore> {
		const store = new LocalStore(key === null ? null : await Box.of(key));
		await store.#connect();
		return store;
	}

	get isDurable(): boolean {
		return this.#db !== null;
	}

	/** The server knows numbers up to this one; ours go on above it. */
	async startAfter(place: Place, last: number): Promise<void> {
		this.#raise(place, last);
		await this.#try(async (db) => {
			const tx = db.transaction('sequence', 'readwrite');
			const known = await tx.store.get(keyOf(place));
			this.#raise(place, known?.last ?? 0);
			await tx.store.put({ ...place, last: this.#lastOf(place) });
			await tx.done;
		});
	}

	/** Numbers a revision and keeps it, and with it how the answer stands; in the order of the calls, whatever sealing takes. */
	add(place: Place, content: Content): Promise<Revision> {
		const added = this.#adding.then(() => this.#add(place, content));
		this.#adding = added.catch(() => {});
		return added;
	}

	async #add(place: Place, content: Content): Promise<Revision> {
		const kept = await this.#try(async (db) => {
			// Sealed before the transaction: one that waits for anything but itself is over.
			const body = await this.#seal(content);
			const tx = db.transaction(['queue', 'sequence', 'given'], 'readwrite');
			const known = await tx.objectStore('sequence').get(keyOf(place));
			const seq = Math.max(known?.last ?? 0, this.#lastOf(place)) + 1;
			await Promise.all([
				tx.objectStore('sequence').put({ ...place, last: seq }),
				tx.objectStore('queue').put({ ...place, seq, body }),
				tx.objectStore('given').put({ ...place, questionId: content.questionId, body }),
				tx.done
			]);
			return { ...content, seq };
		});
		const revision = kept ?? { ...content, seq: this.#lastOf(place) + 1 };
		this.#raise(place, revision.seq);
		this.#waitingOf(place).set(revision.seq, revision);
		return revision;
	}

	/** What has not been acknowledged, oldest first. What another key sealed is left out. */
	async waiting(place: Place): Promise<Revision[]> {
		const waiting = this.#waitingOf(place);
		if (!this.#read.has(nameOf(place))) {
			const rows = await this.#try((db) => db.getAll('queue', all(place, 0, Infinity)));
			if (rows) this.#read.add(nameOf(place));
			for (const { seq, body } of rows ?? []) {
				const content = await this.#open(body);
				if (content) waiting.set(seq, { ...content, seq });
			}
		}
		return [...waiting.values()].sort((a, b) => a.seq - b.seq);
	}

	/** Everything on the device that has not been acknowledged, of every sitting and device, as it lies there. */
	async leftovers(): Promise<QueueRow[]> {
		return (await this.#try((db) => db.getAll('queue'))) ?? [];
	}

	/** The server has these. A row that can't be removed now is sent once more some day, and changes nothing then. */
	async remove(place: Place, seqs: number[]): Promise<void> {
		for (const seq of seqs) this.#waitingOf(place).delete(seq);
		await this.#try(async (db) => {
			const tx = db.transaction('queue', 'readwrite');
			await Promise.all([...seqs.map((seq) => tx.store.delete([...keyOf(place), seq])), tx.done]);
		});
	}

	/** Keeps the paper for a reload without a line. */
	async keepPaper(place: Place, paper: unknown): Promise<void> {
		await this.#try(async (db) => {
			const body = await this.#seal(paper);
			await db.put('paper', { ...place, body });
		});
	}

	/** The paper as it was kept, and the answers as they stood; null: nothing is kept, or not for this key. */
	async keptPaper<T>(place: Place): Promise<{ paper: T; given: Content[] } | null> {
		const found = await this.#try(async (db) => ({
			row: await db.get('paper', keyOf(place)),
			rows: await db.getAll('given', all(place, '', '\uffff'))
		}));
		if (!found?.row) return null;
		const paper = await this.#open(found.row.body as Body<T>);
		if (paper === null) return null;
		const given = await Promise.all(found.rows.map((one) => this.#open(one.body)));
		return { paper, given: given.filter((one) => one !== null) };
	}

	/** Keeps a file of the paper for the same. */
	async keepMedium(place: Place, file: string, blob: Blob): Promise<void> {
		const bytes = await blob.arrayBuffer();
		await this.#try(async (db) => {
			const body = this.box ? await this.box.sealBytes(bytes) : { plain: bytes };
			await db.put('media', { ...place, file, type: blob.type, body });
		});
	}

	/** A file of the paper as it was kept; null: it is not, or not for this key. */
	async keptMedium(place: Place, file: string): Promise<Blob | null> {
		const row = await this.#try((db) => db.get('media', [...keyOf(place), file]));
		if (!row) return null;
		const { body } = row;
		const bytes = 'plain' in body ? body.plain : ((await this.box?.openBytes(body)) ?? null);
		return bytes && new Blob([bytes], { type: row.type });
	}

	/** The sitting is over on this device: nothing of the paper stays, but for what the server does not have yet. */
	async forgetPaper(place: Place): Promise<void> {
		await this.#try(async (db) => {
			const tx = db.transaction(['paper', 'given', 'media'], 'readwrite');
			await Promise.all([
				tx.objectStore('media').delete(all(place, '', '\uffff')),
				tx.objectStore('paper').delete(keyOf(place)),
				tx.objectStore('given').delete(all(place, '', '\uffff')),
				tx.done
			]);
		});
	}

	/** Resolves at once in memory when a tab of another version is in the way, and goes on with the device when it is gone. */
	async #connect(): Promise<void> {
		let give = () => {};
		const blocked = new Promise<void>((resolve) => (give = resolve));
		const opening = this.#openDb(() => give()).then(
			(db) => this.#setDb(db),
			() => this.#setDb(null)
		);
		await Promise.race([opening, blocked]);
	}

	async #openDb(onBlocked: () => void): Promise<IDBPDatabase<Schema>> {
		return openDB<Schema>('otium-player', 3, {
			upgrade(fresh, from) {
				fresh.createObjectStore('media', { keyPath: ['sittingId', 'epoch', 'file'] });
				// The second version has all the rest.
				if (from === 2) return;
				// The first version kept its rows in another shape; what it had not sent is not readable by this one.
				if (from === 1) for (const name of ['queue', 'sequence'] as const) fresh.deleteObjectStore(name);
				fresh.createObjectStore('queue', { keyPath: ['sittingId', 'epoch', 'seq'] });
				fresh.createObjectStore('sequence', { keyPath: ['sittingId', 'epoch'] });
				fresh.createObjectStore('paper', { keyPath: ['sittingId', 'epoch'] });
				fresh.createObjectStore('given', { keyPath: ['sittingId', 'epoch', 'questionId'] });
			},
			blocked: onBlocked,
			// A tab of a later version wants the device's storage: it must not wait for us.
			blocking: (_current, _wanted, event) => {
				(event.target as IDBDatabase).close();
				this.#setDb(null);
			},
			terminated: () => this.#setDb(null)
		});
	}

	#setDb(db: IDBPDatabase<Schema> | null) {
		this.#db = db;
		this.onDurable(db !== null);
	}

	/** Does something with the device's storage; null when it fails. From then on memory takes its place. */
	async #try<T>(work: (db: IDBPDatabase<Schema>) => Promise<T>): Promise<T | null> {
		if (this.#db === null) return null;
		try {
			return await work(this.#db);
		} catch {
			for (const [name, last] of this.#last) this.#last.set(name, last + ROOM);
			this.#setDb(null);
			return null;
		}
	}

	#waitingOf(place: Place): Map<number, Revision> {
		const known = this.#waiting.get(nameOf(place));
		if (known) return known;
		const fresh = new Map<number, Revision>();
		this.#waiting.set(nameOf(place), fresh);
		return fresh;
	}

	#lastOf(place: Place): number {
		return this.#last.get(nameOf(place)) ?? 0;
	}

	#raise(place: Place, last: number) {
		this.#last.set(nameOf(place), Math.max(this.#lastOf(place), last));
	}

	async #seal<T>(value: T): Promise<Body<T>> {
		return this.box ? this.box.seal(value) : { plain: value };
	}

	async #open<T>(body: Body<T>): Promise<T | null> {
		if ('plain' in body) return body.plain;
		return this.box ? this.box.open<T>(body) : null;
	}
}

const keyOf = ({ sittingId, epoch }: Place): [string, number] => [sittingId, epoch];
const nameOf = ({ sittingId, epoch }: Place) => `${sittingId} ${epoch}`;

function all(place: Place, from: number | string, to: number | string) {
	return IDBKeyRange.bound([...keyOf(place), from], [...keyOf(place), to]);
}
