import type { Validity } from '$core/validity';
import type { Query } from '../db';

/** What was decided of a result, and stands. */
export type StandingValidity = { verdict: Validity; note: string };

/** By sitting; of whom nothing was decided is not in it. */
export async function standingValidity(db: Query, sittingIds: string[]): Promise<Map<string, StandingValidity>> {
	const rows: (StandingValidity & { sitting_id: string })[] = await db('validity')
		.whereIn('sitting_id', sittingIds)
		.whereNull('withdrawn_at')
		.select('sitting_id', 'verdict', 'note');
	return new Map(rows.map(({ sitting_id, ...row }) => [sitting_id, row]));
}
