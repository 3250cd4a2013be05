import type { RetentionTerms } from '$core/retention';
import type { Query } from '../db';
import type { House } from '../house';
import { dueFor } from './due';
import { deleteOldAnswers } from './empty-answers';
import { emptyOldEntries } from './empty-log';
import { retentionTerms } from './retention-terms';

/** Deletes answers, and what the log says, where their time has come. Returns how many of each. */
export async function deleteWhatIsDue(
	otium: Pick<House, 'db' | 'now' | 'dataDir'>
): Promise<{ answers: number; log: number }> {
	const terms = await retentionTerms(otium.db);
	return {
		answers: terms.answers === null ? 0 : await deleteOldAnswers(otium, terms.answers),
		log: terms.log === null ? 0 : await emptyOldEntries(otium, terms.log)
	};
}

/** Names of the administrations from which something would be deleted at once, were these the terms. */
export async function dueNow(db: Query, terms: RetentionTerms, now: number): Promise<string[]> {
	const answers = terms.answers === null ? [] : await dueFor(db, 'answers', terms.answers, now);
	const log = terms.log === null ? [] : await dueFor(db, 'log', terms.log, now);
	return [...new Set([...answers, ...log].map(({ name }) => name))];
}
