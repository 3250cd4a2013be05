import type { Knex } from 'knex';
import { sitesWith, type StaffMember } from '$core/access';
import type { Audience, Ownership, Writer } from '$core/bank';
import type { Query } from '../db';
import type { Latest } from './write-revision';

export function writerOf(staff: StaffMember): Writer {
	return { id: staff.id, sites: sitesWith(staff, 'write_papers') };
}

/** Whose a question of the bank is, and where it stands; null: there is none of that id. */
export async function ownershipOf(db: Query, id: string): Promise<(Ownership & Latest) | null> {
	const row: ({ owner: string | null; site_id: string | null; audience: Audience } & Latest) | undefined = await db(
		'question'
	)
		.where({ id })
		.first('owner', 'site_id', 'audience', 'revision', 'digest');
	if (!row) return null;
	const named: string[] = await db('question_reader').where({ question_id: id }).pluck('staff_id');
	const { owner, site_id: siteId, audience, revision, digest } = row;
	return { owner, siteId, audience, named, revision, digest };
}

/** Narrows a query on `question` to those that somebody may use: the same rule as `mayUse`, for many at once. */
export function whereMayUse(db: Query, query: ReturnType<Query['queryBuilder']>, writer: Writer): void {
	query.where((any) => {
		any.where('question.owner', writer.id).orWhere('question.audience', 'all');
		any.orWhere((named) =>
			named
				.where('question.audience', 'named')
				.whereIn('question.id', db('question_reader').where({ staff_id: writer.id }).select('question_id'))
		);
		any.orWhere((site) => {
			site.where('question.audience', 'site');
			if (writer.sites !== null) site.whereIn('question.site_id', writer.sites);
		});
	});
}

/** Joins, to a query on papers, the sessions in which one was sat by now; rehearsals are none. */
export function joinSat(paperId: string, now: number) {
	return (join: Knex.JoinClause) =>
		void join
			.on('session.paper_id', paperId)
			.andOnVal('session.opens', '<=', now)
			.andOnVal('session.kind', '<>', 'rehearsal');
}
