import type { GrantBody, GrantSource } from '$core/grants';
import { groupBy } from '$core/group-by';
import type { KnownPerson, Needs } from '$core/people';
import type { Query } from '../db';
import { giveWay } from '../event-loop';

/** Everyone whose home is at a site, as imports compare them and exports write them. */
export async function knownPeople(db: Query, siteId: string): Promise<KnownPerson[]> {
	const known: KnownPerson[] = [];
	for (let after = ''; ; await giveWay()) {
		const rows = await db('candidate')
			.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
			.where('candidate_group.site_id', siteId)
			.where('candidate.id', '>', after)
			.orderBy('candidate.id')
			.limit(PART)
			.select('candidate.*');
		if (rows.length === 0) break;
		known.push(...(await withGroupsAndNeeds(db, siteId, rows)));
		after = rows.at(-1)!.id;
	}
	await giveWay();
	const keyed = known.map((person) => ({ key: `${person.family}\0${person.given}\0${person.number}`, person }));
	return keyed.sort((a, b) => (a.key < b.key ? -1 : 1)).map(({ person }) => person);
}

/** So many are read before others have their turn. */
const PART = 250;

async function withGroupsAndNeeds(
	db: Query,
	siteId: string,
	rows: Record<string, string | number | null>[]
): Promise<KnownPerson[]> {
	const ids = rows.map((row) => row.id as string);
	const groups = new Map<string, string[]>();
	const members: { candidate_id: string; name: string }[] = await db('group_member')
		.join('candidate_group', 'candidate_group.id', 'group_member.group_id')
		.where('candidate_group.site_id', siteId)
		.whereIn('candidate_id', ids)
		.orderBy('name')
		.select('candidate_id', 'name');
	for (const { candidate_id, name } of members) {
		const list = groups.get(candidate_id) ?? [];
		list.push(name);
		groups.set(candidate_id, list);
	}
	const grants: { candidate_id: string; body: string; source: GrantSource }[] = await db('grant_given')
		.where({ scope_kind: 'standing' })
		.whereIn('kind', ['extra_time', 'separate_room', 'unlimited_time', 'display'])
		.whereNull('withdrawn_at')
		.whereIn('candidate_id', ids)
		.select('candidate_id', 'body', 'source');
	const byPerson = groupBy(grants, (grant) => grant.candidate_id);
	const needsOf = (id: string, only?: GrantSource) =>
		needsFrom(
			(byPerson.get(id) ?? [])
				.filter((grant) => only === undefined || grant.source === only)
				.map((grant) => JSON.parse(grant.body) as GrantBody)
		);
	return rows.map((row) => {
		return {
			id: row.id as string,
			number: row.number as string,
			given: row.given as string,
			family: row.family as string,
			groups: (groups.get(row.id as string) ?? []).filter((name) => name !== NO_GROUP),
			email: row.email as string | null,
			birth: row.birth as string | null,
			language: row.language as string | null,
			grade: row.grade as string | null,
			userName: row.user_name as string | null,
			elsewhere: Boolean(row.elsewhere),
			sourceId: row.source_id as string | null,
			...needsOf(row.id as string),
			byFile: needsOf(row.id as string, 'profile'),
			left: row.left_at !== null
		};
	});
}

function needsFrom(bodies: GrantBody[]): Needs {
	const needs: Needs = { extraTime: { factor: 1, minutes: 0 }, separateRoom: false, unlimited: false, display: null };
	for (const body of bodies) {
		if (body.kind === 'separate_room') needs.separateRoom = true;
		if (body.kind === 'unlimited_time') needs.unlimited = true;
		if (body.kind === 'extra_time') {
			needs.extraTime.factor = Math.max(needs.extraTime.factor, body.factor);
			needs.extraTime.minutes += body.minutes;
		}
		if (body.kind === 'display')
			needs.display = {
				magnification: Math.max(needs.display?.magnification ?? 1, body.magnification),
				contrast: body.contrast || (needs.display?.contrast ?? false)
			};
	}
	return needs;
}

/** Where those are listed who are in no group. */
export const NO_GROUP = 'In no group';
