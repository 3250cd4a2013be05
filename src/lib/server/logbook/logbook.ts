import { createHash } from 'node:crypto';
import type { Actor } from '$core/sitting';
import { insertMany, type Query } from '../db';

/** What goes into the logbook. `body` is whatever is worth keeping of it. */
export type NewEntry = {
	at: number;
	by: Actor;
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
};

/** What the first entry has before it. */
const GENESIS = '0'.repeat(64);

/**
 * Appends entries, each carrying the hash of the one before. Call it inside the transaction that does what they tell
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
		before = hashOf(row);
		return { ...row, hash: before };
	});
	await insertMany(trx, 'logbook', rows);
	return rows;
}

function hashOf(row: Omit<Entry, 'hash'>): string {
	const told = [
		row.seq,
		row.at,
		row.actor_role,
		row.actor_id,
		row.kind,
		row.session_id,
		row.sitting_id,
		row.body,
		row.before
	];
	return createHash('sha256').update(JSON.stringify(told)).digest('hex');
}

export type Verification = { entries: number; broken: { seq: number; why: string } | null; head: string };

/** Works the whole chain out again, in pages, and says where it first breaks. */
export async function verifyLogbook(db: Query): Promise<Verification> {
	const page = 5_000;
	let expected = 1;
	let before = GENESIS;
	for (;;) {
		const rows: Entry[] = await db<Entry>('logbook').where('seq', '>=', expected).orderBy('seq').limit(page);
		for (const row of rows) {
			const why = faultOf(row, expected, before);
			if (why) return { entries: expected - 1, broken: { seq: row.seq, why }, head: before };
			before = row.hash;
			expected++;
		}
		if (rows.length < page) return { entries: expected - 1, broken: null, head: before };
	}
}

function faultOf(row: Entry, expected: number, before: string): string | null {
	if (row.seq !== expected) return `entry ${expected} is missing`;
	if (row.before !== before) return 'it does not follow from the entry before it';
	return hashOf(row) === row.hash ? null : 'its contents were changed after it was written';
}
