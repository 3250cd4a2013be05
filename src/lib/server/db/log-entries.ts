import type { StaffRole } from '$core/access';
import type { Actor } from '$core/sitting';
import { macOf } from './house-key';
import { insertMany } from './insert-many';
import type { Query } from './open';

/** What goes into the logbook. `body` is whatever is worth keeping of it. */
export type NewEntry = {
	at: number;
	/** Whoever acts on sittings, or staff in any other role. */
	by: { role: Actor['role'] | StaffRole; id: string };
	kind: string;
	sessionId?: string | null;
	sittingId?: string | null;
	body: Record<string, unknown>;
};

export type Entry = {
	seq: number;
	at: number;
	actor_role: string;
	actor_id: string;
	kind: string;
	session_id: string | null;
	sitting_id: string | null;
	body: string;
	/** The hash of the entry before. */
	before: string;
	hash: string;
	/** By whom its body was taken out when its time had come, with the house's key; null: it is there. */
	emptied?: string | null;
};

/** What the first entry has before it. */
export const GENESIS = '0'.repeat(64);

/**
 * Appends entries, each with a keyed hash over itself and the one before, so that nobody without the house's key can make
 * a chain of their own. Call it inside the transaction that does what they tell
 * of, so that neither can be without the other.
 */
export async function appendToLogbook(trx: Query, entries: NewEntry[]): Promise<Entry[]> {
	if (entries.length === 0) return [];
	const last = await trx<Entry>('logbook').orderBy('seq', 'desc').first('seq', 'hash');
	let seq = last?.seq ?? 0;
	let before = last?.hash ?? GENESIS;
	const rows = entries.map((entry) => {
		const row = {
			seq: ++seq,
			at: entry.at,
			actor_role: entry.by.role,
			actor_id: entry.by.id,
			kind: entry.kind,
			session_id: entry.sessionId ?? null,
			sitting_id: entry.sittingId ?? null,
			body: JSON.stringify(entry.body),
			before
		};
		before = macOf(trx, 'logbook', toldBy(row));
		return { ...row, hash: before };
	});
	await insertMany(trx, 'logbook', rows);
	return rows;
}

/** What of an entry is chained, as text. */
export function toldBy(row: Omit<Entry, 'hash' | 'emptied'>): string {
	return JSON.stringify([
		row.seq,
		row.at,
		row.actor_role,
		row.actor_id,
		row.kind,
		row.session_id,
		row.sitting_id,
		row.body,
		row.before
	]);
}
