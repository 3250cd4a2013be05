import { grantInWords, scopeInWords } from '$core/grants';
import type { Query } from '../db';
import { findGrants } from '../records';

/** A grant as the history of a person tells it. */
export type PastGrant = {
	id: string;
	what: string;
	scope: string;
	reason: string;
	by: string;
	at: number;
	withdrawnAt: number | null;
};

/** All that was ever given to somebody, latest first; what was withdrawn is among it. */
export async function grantHistory(db: Query, candidateId: string, zone: string): Promise<PastGrant[]> {
	const grants = await findGrants(db, [candidateId], []);
	const givers: { id: string; name: string }[] = await db('staff')
		.whereIn('id', [...new Set(grants.map((grant) => grant.givenBy))])
		.select('id', 'name');
	const names = new Map(givers.map(({ id, name }) => [id, name]));
	return grants
		.sort((a, b) => b.givenAt - a.givenAt)
		.map((grant) => ({
			id: grant.id,
			what: grantInWords(grant, zone),
			scope: grant.scope.kind === 'session' ? 'for one session' : scopeInWords(grant.scope),
			reason: grant.reason,
			by: names.get(grant.givenBy) ?? '',
			at: grant.givenAt,
			withdrawnAt: grant.withdrawnAt
		}));
}
