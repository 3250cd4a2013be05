import { may, type StaffMember, SUPERVISING } from '$core/access';
import { fail } from '$core/problem';
import type { Query } from '../db';
import { placeOf, type Session } from '../records';
import { coordinatedSites, inputOf } from './choices';
import type { SessionInput } from './input';

/** What a request names by id; to whoever coordinates some sites, another's do not exist. */
type Named = { rooms?: string[]; groups?: string[]; candidates?: string[]; proctors?: string[] };

/**
 * Refuses ids that lie outside the sites of whoever asks, or nowhere.
 * @param known ids that are there already, put by somebody who may: they may stay
 * @throws ProblemError not_yours
 */
export async function mustBeWithin(db: Query, staff: StaffMember, named: Named, known = new Set<string>()) {
	const sites = coordinatedSites(staff);
	const wanted = (ids: string[] = []) => [...new Set(ids)].filter((id) => !known.has(id));
	const inSites = (query: ReturnType<Query['queryBuilder']>, column: string) => {
		if (sites !== null) query.whereIn(column, sites);
	};
	const [rooms, groups, candidates, proctors] = [named.rooms, named.groups, named.candidates, named.proctors].map(
		wanted
	);
	const found = {
		rooms: await db('room').whereIn('id', rooms).modify(inSites, 'site_id').pluck('id'),
		groups: await db('candidate_group').whereIn('id', groups).modify(inSites, 'site_id').pluck('id'),
		candidates: await db('candidate')
			.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
			.whereIn('candidate.id', candidates)
			.modify(inSites, 'candidate_group.site_id')
			.pluck('candidate.id'),
		// As the form offers them: whoever may run a room there, or everywhere.
		proctors: await db('staff_role')
			.whereIn('staff_id', proctors)
			.whereIn('role', SUPERVISING)
			.where((any) => {
				if (sites !== null) any.whereNull('site_id').orWhereIn('site_id', sites);
			})
			.distinct('staff_id')
			.pluck('staff_id')
	};
	const isWhole =
		found.rooms.length === rooms.length &&
		found.groups.length === groups.length &&
		found.candidates.length === candidates.length &&
		found.proctors.length === proctors.length;
	if (!isWhole) fail('not_yours');
}

/**
 * The same for all that a session's setup names, and for the session that is being changed. What that holds already may
 * stay.
 * @throws ProblemError not_yours
 */
export async function mustPlanWithin(db: Query, staff: StaffMember, input: SessionInput, editing: Session | null) {
	if (editing && !may(staff, 'prepare', placeOf(editing))) fail('not_yours');
	const ids = (one: SessionInput) => {
		const parts = [one, ...(one.parts ?? [])];
		return {
			rooms: parts.map((part) => part.roomId).filter(Boolean),
			groups: parts.flatMap((part) => part.groupIds),
			candidates: one.alsoIds,
			proctors: parts.flatMap((part) => part.proctorIds)
		};
	};
	const before = editing && ids(await inputOf(db, editing));
	const known = before ? [...before.groups, ...before.candidates, ...before.proctors] : [];
	await mustBeWithin(db, staff, ids(input), new Set(known));
}
