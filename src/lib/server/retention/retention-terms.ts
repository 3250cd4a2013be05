import { NO_END, termsFault, type RetentionTerms } from '$core/retention';
import { fail } from '$core/problem';
import { houseSetting, keepHouseSetting, transact, type Query } from '../db';
import type { Writing } from '../house';
import { appendToLogbook, type NewEntry } from '../logbook';

const KEY = 'retention_terms';

/** After how long this house deletes what it has kept of closed administrations. */
export async function retentionTerms(db: Query): Promise<RetentionTerms> {
	return { ...NO_END, ...(await houseSetting<RetentionTerms>(db, KEY)) };
}

/** @throws ProblemError not_taken, when they do not fit together */
export async function saveRetentionTerms(otium: Writing, by: NewEntry['by'], terms: RetentionTerms): Promise<void> {
	const fault = termsFault(terms);
	if (fault) fail('not_taken', { message: fault });
	await transact(otium.db, async (trx) => {
		await keepHouseSetting(trx, KEY, terms);
		await appendToLogbook(trx, [{ at: otium.now(), by, kind: 'retention_changed', body: { ...terms } }]);
	});
}
