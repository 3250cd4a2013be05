import { may, sitesWith, type Act, type StaffMember } from '$core/access';
import { fail } from '$core/problem';
import type { Query } from '../db';
import { administrationOn, listAdministrations, type AdministrationName } from '../places';
import { localDate } from '$core/time';

/** The sites of an administration, by its sessions. */
export async function sitesOf(db: Query, administrationId: string): Promise<string[]> {
	return db('session')
		.join('room', 'room.id', 'session.room_id')
		.where({ administration_id: administrationId })
		.distinct('room.site_id')
		.pluck('room.site_id');
}

/**
 * What changes results at every site takes somebody who may do it at every site.
 * @throws ProblemError not_found, not_yours
 */
export async function mustBeForAll(db: Query, staff: StaffMember, act: Act, administrationId: string): Promise<void> {
	if (!(await db('administration').where({ id: administrationId }).first('id'))) fail('not_found');
	const sites = await sitesOf(db, administrationId);
	if (sites.length === 0 || sites.some((siteId) => !may(staff, act, { siteId, proctorIds: [] })))
		fail('not_yours', {
			message: 'This concerns other sites as well, so you can’t do it alone.',
			instead: 'Somebody with this right at all of its sites can.'
		});
}

/**
 * Administrations of which this person sees something, the latest first; those of them that are not closed; and the one
 * that is shown where none is named.
 */
export async function administrationsFor(
	db: Query,
	staff: StaffMember,
	act: Act,
	now: number,
	asked: string | null
): Promise<{ all: AdministrationName[]; open: AdministrationName[]; here: AdministrationName | null }> {
	const sites = sitesWith(staff, act);
	const seen: string[] = await db('session')
		.join('room', 'room.id', 'session.room_id')
		.where('session.opens', '<=', now)
		.modify((query) => {
			if (sites !== null) query.whereIn('room.site_id', sites);
		})
		.distinct('administration_id')
		.pluck('administration_id');
	const all = (await listAdministrations(db)).filter(({ id }) => seen.includes(id));
	const today = localDate(now, 'UTC');
	const closed: string[] = await db('closing').pluck('administration_id');
	const open = all.filter(({ id }) => !closed.includes(id));
	// What is over and not closed is what somebody comes here for.
	const over = open.filter(({ closesOn }) => closesOn !== null && closesOn < today).at(-1);
	const current = await administrationOn(db, today);
	const named = all.find(({ id }) => id === asked);
	return { all, open, here: named ?? over ?? all.find(({ id }) => id === current?.id) ?? all[0] ?? null };
}
