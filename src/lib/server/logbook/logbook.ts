import { createHash } from 'node:crypto';
import { GENESIS, macOf, openSecret, sealSecret, toldBy, type Entry, type Query } from '../db';

/** That what an entry said was taken out by this house, and not by somebody who only has the file. */
const emptiedEntry = (db: Query, { seq, hash }: Entry) => macOf(db, 'logbook', JSON.stringify(['emptied', seq, hash]));

/** Takes out what these entries say; their hashes stay, and so the chain. */
export async function emptyEntries(trx: Query, entries: Entry[]): Promise<void> {
	for (const entry of entries)
		await trx('logbook')
			.where({ seq: entry.seq })
			.update({ body: '{}', emptied: emptiedEntry(trx, entry) });
}

/** Up to where entries follow from one another without a key, as a version before this one left them. */
export type Unkeyed = { seq: number; hash: string | null; answers: number };

export async function unkeyedPart(db: Query): Promise<Unkeyed> {
	const row = await db('meta').where({ key: 'unkeyed' }).first('value');
	const text = row && openSecret(db, row.value);
	return text ? JSON.parse(text) : { seq: 0, hash: null, answers: 0 };
}

/** Answers from before they were chained are counted; these sittings' are about to go. */
export async function dropUnchained(trx: Query, sittingIds: string[]): Promise<void> {
	const [{ count }] = (await trx('answer')
		.whereIn('sitting_id', sittingIds)
		.whereNull('group_seq')
		.count('* as count')) as { count: number }[];
	if (Number(count) === 0) return;
	const unkeyed = await unkeyedPart(trx);
	const value = sealSecret(trx, JSON.stringify({ ...unkeyed, answers: unkeyed.answers - Number(count) }));
	await trx('meta').where({ key: 'unkeyed' }).update({ value });
}

export type Verification = { entries: number; broken: { seq: number; why: string } | null; head: string };

/** Works the whole chain out again, in pages, and says where it first breaks. */
export async function verifyLogbook(db: Query): Promise<Verification> {
	const page = 5_000;
	let expected = 1;
	let before = GENESIS;
	const unkeyed = await unkeyedPart(db);
	for (;;) {
		const rows: Entry[] = await db<Entry>('logbook').where('seq', '>=', expected).orderBy('seq').limit(page);
		for (const row of rows) {
			const why = faultOf(db, row, expected, before, unkeyed);
			if (why) return { entries: expected - 1, broken: { seq: row.seq, why }, head: before };
			before = row.hash;
			expected++;
		}
		if (rows.length < page) {
			const entries = expected - 1;
			const broken =
				entries < unkeyed.seq ? { seq: expected, why: `entries ${expected} to ${unkeyed.seq} are missing` } : null;
			return { entries, broken, head: before };
		}
	}
}

function faultOf(db: Query, row: Entry, expected: number, before: string, unkeyed: Unkeyed): string | null {
	if (row.seq !== expected) return `entry ${expected} is missing`;
	if (row.before !== before) return 'it does not follow from the entry before it';
	if (row.emptied === emptiedEntry(db, row)) return null;
	const told = toldBy(row);
	const right = row.seq > unkeyed.seq ? macOf(db, 'logbook', told) : createHash('sha256').update(told).digest('hex');
	if (right !== row.hash) return 'its contents were changed after it was written';
	return row.seq === unkeyed.seq && row.hash !== unkeyed.hash ? 'it is not the entry that was the last then' : null;
}
