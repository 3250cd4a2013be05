import { NO_END, termsFault, type RetentionTerms } from '$core/retention';
import { fail } from '$core/problem';
import { transact, type Query } from '../db';
import type { Writing } from '../house';
import { appendToLogbook, type NewEntry } from '../logbook';

const KEY = 'retention_terms';

/** After how long this house deletes what it has kept of closed administrations. */
export async function retentionTerms(db: Query): Promise<RetentionTerms> {
	const row = await db('meta').where({ key: KEY }).first('value');
	return { ...NO_END, ...(row && (JSON.parse(row.value) as RetentionTerms)) };
}

/** @throws ProblemError not_taken, when they do not fit together */
export async function saveRetentionTerms(otium: Writing, by: NewEntry['by'], terms: RetentionTerms): Promise<void> {
	const fault = termsFault(terms);
	if (fault) fail('not_taken', { message: fault });
	await transact(otium.db, async (trx) => {
		await trx('meta')
			.insert({ key: KEY, value: JSON.stringify(terms) })
			.onConflict('key')
			.merge();
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'retention_changed', body: { ...terms } }]);
	});
}
