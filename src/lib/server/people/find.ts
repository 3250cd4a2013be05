import type { StaffMember } from '$core/access';
import { whereEveryWord, type Query } from '../db';
import { fullName } from '$core/names';
import { coordinatedSites } from '../session';

/** A candidate as lists show them: always with full name and number, so that two who are alike are told apart. */
export type PersonRow = {
	id: string;
	number: string;
	name: string;
	groups: string;
	group: string;
	site: string;
	email: string | null;
	language: string | null;
	/** Standing accommodations, how many. */
	standing: number;
	left: boolean;
};
export type PeopleQuestion = {
	text: string;
	groupId: string | null;
	siteId: string | null;
	withLeft: boolean;
	page: number;
};
export const PAGE_SIZE = 50;

/** One page of the candidates of somebody's sites, by any part of name, number or group. */
export async function findPeople(
	db: Query,
	staff: StaffMember,
	asked: PeopleQuestion
): Promise<{ people: PersonRow[]; total: number }> {
	const sites = coordinatedSites(staff);
	const narrow = (query: ReturnType<Query['queryBuilder']>) => {
		query
			.from('candidate')
			.join('candidate_group as home', 'home.id', 'candidate.group_id')
			.join('site', 'site.id', 'home.site_id');
		if (sites !== null) query.whereIn('site.id', sites);
		if (asked.siteId) query.where('site.id', asked.siteId);
		if (!asked.withLeft) query.whereNull('candidate.left_at');
		if (asked.groupId)
			query.whereIn('candidate.id', db('group_member').where({ group_id: asked.groupId }).select('candidate_id'));
		whereEveryWord(query, asked.text, [
			'candidate.given',
			'candidate.family',
			'candidate.number',
			'home.name',
			'candidate.email'
		]);
	};
	const [{ total }] = (await db.queryBuilder().modify(narrow).count('* as total')) as { total: number }[];
	const rows: Record<string, string | number | null>[] = await db
		.queryBuilder()
		.modify(narrow)
		.orderBy(['candidate.family', 'candidate.given', 'candidate.number'])
		.limit(PAGE_SIZE)
		.offset(asked.page * PAGE_SIZE)
		.select('candidate.*', 'home.name as group', 'site.name as site');
	const ids = rows.map((row) => row.id as string);
	const members: { candidate_id: string; name: string }[] = await db('group_member')
		.join('candidate_group', 'candidate_group.id', 'group_member.group_id')
		.whereIn('candidate_id', ids)
		.orderBy('name')
		.select('candidate_id', 'name');
	const standing: { candidate_id: string; n: number }[] = await db('grant_given')
		.whereIn('candidate_id', ids)
		.where({ scope_kind: 'standing' })
		.whereNull('withdrawn_at')
		.groupBy('candidate_id')
		.select('candidate_id')
		.count('* as n');
	return {
		total,
		people: rows.map((row) => ({
			id: row.id as string,
			number: row.number as string,
			name: fullName(row),
			group: row.group as string,
			groups: members
				.filter((one) => one.candidate_id === row.id)
				.map((one) => one.name)
				.join(', '),
			site: row.site as string,
			email: row.email as string | null,
			language: row.language as string | null,
			standing: standing.find((one) => one.candidate_id === row.id)?.n ?? 0,
			left: row.left_at !== null
		}))
	};
}

export async function peopleById(db: Query, ids: string[]): Promise<{ id: string; name: string; number: string }[]> {
	const rows: { id: string; given: string; family: string; number: string }[] = await db('candidate')
		.whereIn('id', ids)
		.orderBy(['family', 'given'])
		.select('id', 'given', 'family', 'number');
	return rows.map((row) => ({ id: row.id, name: fullName(row), number: row.number }));
}
