import { mergeGrants } from '$core/grants';
import { groupBy } from '$core/group-by';
import type { Query } from '../db';
import { findGrants } from '../records';

/**
 * How many attempts each of these candidates was granted for a paper beyond those that the rules give. Those who were
 * granted none are left out.
 */
export async function extraAttempts(
	db: Query,
	candidateIds: string[],
	place: { administrationId: string; paperId: string; sessionId: string; opens: number }
): Promise<Map<string, number>> {
	const granted: string[] = await db('grant_given')
		.where({ kind: 'extra_attempt', withdrawn_at: null })
		.pluck('candidate_id');
	const concerned = candidateIds.filter((id) => granted.includes(id));
	const grants = groupBy(await findGrants(db, concerned, []), (grant) => grant.candidateId!);
	const given = concerned.map((candidateId): [string, number] => [
		candidateId,
		mergeGrants(grants.get(candidateId) ?? [], { candidateId, ...place }, 'UTC').extraAttempts
	]);
	return new Map(given.filter(([, count]) => count > 0));
}
