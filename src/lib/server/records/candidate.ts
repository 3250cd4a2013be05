import type { Query } from '../db';

/** The site that a candidate is of, by their first group; null: there is no such candidate. */
export async function siteOfCandidate(db: Query, id: string): Promise<string | null> {
	const row = await db('candidate')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.where('candidate.id', id)
		.first('site_id');
	return row?.site_id ?? null;
}
