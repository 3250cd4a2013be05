import type { GrantBody } from '$core/grants';
import type { KnownPerson } from '$core/people';
import type { Query } from '../db';

/** Everyone whose home is at a site, as imports compare them and exports write them. */
export async function knownPeople(db: Query, siteId: string): Promise<KnownPerson[]> {
	const rows: Record<string, string | number | null>[] = await db('candidate')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.where('candidate_group.site_id', siteId)
		.orderBy(['candidate.family', 'candidate.given', 'candidate.number'])
		.select('candidate.*');
	const groups = new Map<string, string[]>();
	const members: { candidate_id: string; name: string }[] = await db('group_member')
		.join('candidate_group', 'candidate_group.id', 'group_member.group_id')
		.where('candidate_group.site_id', siteId)
		.orderBy('name')
		.select('candidate_id', 'name');
	for (const { candidate_id, name } of members) {
		const list = groups.get(candidate_id) ?? [];
		list.push(name);
		groups.set(candidate_id, list);
	}
	const grants: { candidate_id: string; body: string }[] = await db('grant_given')
		.where({ scope_kind: 'standing' })
		.whereIn('kind', ['extra_time', 'separate_room'])
		.whereNull('withdrawn_at')
		.whereNotNull('candidate_id')
		.select('candidate_id', 'body');
	const needs = new Map<string, { factor: number; minutes: number; apart: boolean }>();
	for (const row of grants) {
		const need = needs.get(row.candidate_id) ?? { factor: 1, minutes: 0, apart: false };
		const body: GrantBody = JSON.parse(row.body);
		if (body.kind === 'separate_room') need.apart = true;
		if (body.kind === 'extra_time') {
			need.factor = Math.max(need.factor, body.factor);
			need.minutes += body.minutes;
		}
		needs.set(row.candidate_id, need);
	}
	return rows.map((row) => {
		const need = needs.get(row.id as string);
		return {
			id: row.id as string,
			number: row.number as string,
			given: row.given as string,
			family: row.family as string,
			groups: (groups.get(row.id as string) ?? []).filter((name) => name !== NO_GROUP),
			email: row.email as string | null,
			birth: row.birth as string | null,
			language: row.language as string | null,
			sourceId: row.source_id as string | null,
			extraTime: { factor: need?.factor ?? 1, minutes: need?.minutes ?? 0 },
			separateRoom: need?.apart ?? false,
			left: row.left_at !== null
		};
	});
}

/** Where those are listed who are in no group. */
export const NO_GROUP = 'In no group';
