import { may, sitesWith, type StaffMember } from '$core/access';
import { groupBy } from '$core/group-by';
import { fullName } from '$core/names';
import { nearestFirst, whereEveryWord, type Query } from '../db';
import { placeOf } from '../session';
import { loadSittings } from '../sitting';
import { toLine, type GrantLine } from './overview';

/** Everyone of a group in one session. */
export type FoundGroup = {
	name: string;
	session: string;
	opens: number;
	zone: string;
	people: { sittingId: string; name: string; number: string }[];
};
export type FoundForGrant = { people: GrantLine[]; groups: FoundGroup[] };

const MOST_PEOPLE = 12;
const MOST_GROUPS = 6;

/** Candidates in any state and groups with a session to come, at the sites where this person gives grants. */
export async function findForGrant(db: Query, staff: StaffMember, text: string, now: number): Promise<FoundForGrant> {
	if (text === '') return { people: [], groups: [] };
	const sites = sitesWith(staff, 'grant');
	const atTheirs = (query: ReturnType<Query['queryBuilder']>) => {
		// Those of other sites must not take the places of one's own.
		if (sites !== null) query.whereIn('session.room_id', db('room').whereIn('site_id', sites).select('id'));
	};
	const people = db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.join('session', 'session.id', 'sitting.session_id')
		// Nothing can be granted once an administration is closed, so its sittings are not read.
		.whereIn('sitting.administration_id', db('administration').whereNotIn('id', closed(db)).select('id'))
		.whereNot('sitting.state', 'set_aside')
		.whereNull('sitting.next_attempt_id')
		.where('sitting.counts', 1)
		.modify(atTheirs)
		.limit(MOST_PEOPLE)
		.select('sitting.id');
	whereEveryWord(people, text, ['candidate.given', 'candidate.family', 'candidate.number', 'candidate_group.name']);
	nearestFirst(people, 'session.opens', now);
	const ids: string[] = (await people).map((row: { id: string }) => row.id);
	const loaded = await loadSittings(db, ids, now);
	return {
		people: loaded
			.filter((one) => may(staff, 'grant', placeOf(one.session)))
			.map((one) => toLine(one))
			.sort((a, b) => a.name.localeCompare(b.name) || a.base.opens - b.base.opens),
		groups: await groupsFor(db, text, atTheirs, now)
	};
}

const closed = (db: Query) => db('closing').select('administration_id');

type Member = { id: string; session_id: string; group_id: string; given: string; family: string; number: string };
type GroupRow = { group_id: string; group_name: string; session_id: string; name: string; opens: number; zone: string };

async function groupsFor(
	db: Query,
	text: string,
	atTheirs: (query: ReturnType<Query['queryBuilder']>) => void,
	now: number
): Promise<FoundGroup[]> {
	const query = db('session')
		.join('session_group', 'session_group.session_id', 'session.id')
		.join('candidate_group', 'candidate_group.id', 'session_group.group_id')
		.join('room', 'room.id', 'session.room_id')
		.join('site', 'site.id', 'room.site_id')
		.whereNull('session.ended_at')
		.modify(atTheirs)
		.limit(MOST_GROUPS)
		.select(
			'candidate_group.id as group_id',
			'candidate_group.name as group_name',
			'session.id as session_id',
			'session.name',
			'session.opens',
			'site.zone'
		);
	whereEveryWord(query, text, ['candidate_group.name']);
	nearestFirst(query, 'session.opens', now);
	const rows: GroupRow[] = await query;
	const members: Member[] = await db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.join('group_member', 'group_member.candidate_id', 'sitting.candidate_id')
		.whereIn(
			'session_id',
			rows.map((row) => row.session_id)
		)
		.whereIn(
			'group_member.group_id',
			rows.map((row) => row.group_id)
		)
		.whereNull('next_attempt_id')
		.whereNot('state', 'set_aside')
		.orderBy(['candidate.family', 'candidate.given'])
		.select('sitting.id', 'session_id', 'group_member.group_id', 'given', 'family', 'number');
	const byBoth = groupBy(members, (member) => `${member.session_id} ${member.group_id}`);
	return rows.map((row) => ({
		name: row.group_name,
		session: row.name,
		opens: row.opens,
		zone: row.zone,
		people: (byBoth.get(`${row.session_id} ${row.group_id}`) ?? []).map((member) => ({
			sittingId: member.id,
			name: fullName(member),
			number: member.number
		}))
	}));
}
