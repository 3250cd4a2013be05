import { closedBefore } from '$core/retention';
import { ROWS_ENTRY, transact, type Query } from '../db';
import { giveWay } from '../event-loop';
import type { Writing } from '../house';
import { emptyEntries, type Entry } from '../logbook';
import { dueFor } from './due';

const AT_ONCE = 200;
/** What the record says of itself stays: without it nobody could read what is missing, and why. */
const STAYS = ['deleted_in_time', 'retention_changed', 'administration_closed', ROWS_ENTRY];

/**
 * Takes out of the log what its entries say, of administrations whose time has come, and of no administration when they
 * are as old: that something of the kind happened, when, and by whom by number, stays chained. Returns how many entries.
 */
export async function emptyOldEntries(otium: Writing, years: number): Promise<number> {
	const { db } = otium;
	let count = 0;
	for (const { id } of await dueFor(db, 'log', years, otium.now())) {
		await db('emptied')
			.insert({ administration_id: id, what: 'log', at: otium.now(), done_at: null })
			.onConflict()
			.ignore();
		const sessions = db('session').where({ administration_id: id }).select('id');
		const sittings = db('sitting').where({ administration_id: id }).select('id');
		count += await emptyAll(otium, (query) =>
			query.where((any) => void any.whereIn('session_id', sessions.clone()).orWhereIn('sitting_id', sittings.clone()))
		);
		await db('emptied').where({ administration_id: id, what: 'log' }).update({ done_at: otium.now() });
	}
	return (
		count +
		(await emptyAll(otium, (query) =>
			query.whereNull('session_id').whereNull('sitting_id').where('at', '<=', closedBefore(otium.now(), years))
		))
	);
}

async function emptyAll({ db }: Writing, narrow: (query: ReturnType<Query['queryBuilder']>) => void): Promise<number> {
	for (let count = 0; ;) {
		const query = db('logbook').whereNull('emptied').whereNotIn('kind', STAYS).limit(AT_ONCE);
		narrow(query);
		const entries: Entry[] = await query;
		if (entries.length === 0) return count;
		await transact(db, (trx) => emptyEntries(trx, entries));
		count += entries.length;
		await giveWay();
	}
}
