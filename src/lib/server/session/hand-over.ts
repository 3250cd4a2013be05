import { ROLE_NAMES, type StaffRole, SUPERVISING } from '$core/access';
import type { Actor } from '$core/sitting';
import { transact, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Acting } from '../house';
import type { Session } from '../records';

/** Somebody who may supervise at a session's site. */
export type Proctor = { id: string; name: string; isHere: boolean };

/** Everyone who may supervise this session; those who already do come first. */
export async function proctorsFor(db: Query, session: Session): Promise<Proctor[]> {
	const rows: { id: string; name: string }[] = await db('staff')
		.join('staff_role', 'staff_role.staff_id', 'staff.id')
		.whereIn('role', SUPERVISING)
		.where((any) => any.whereNull('site_id').orWhere({ site_id: session.site.id }))
		.distinct('staff.id', 'staff.name')
		.orderBy('staff.name');
	return rows
		.map((row) => ({ ...row, isHere: session.proctorIds.includes(row.id) }))
		.sort((a, b) => Number(b.isHere) - Number(a.isHere));
}

/** Hands a room over; the next one is on the list before the first is off it. false: nobody of that name may supervise here. */
export async function handOver(
	otium: Acting,
	by: Actor,
	session: Session,
	to: { staffId: string; note: string; stays: boolean }
): Promise<boolean> {
	const next = (await proctorsFor(otium.db, session)).find((one) => one.id === to.staffId);
	if (!next) return false;
	await transact(otium.db, async (trx) => {
		await trx('session_proctor')
			.insert({ session_id: session.id, staff_id: next.id })
			.onConflict(['session_id', 'staff_id'])
			.ignore();
		if (!to.stays && next.id !== by.id)
			await trx('session_proctor').where({ session_id: session.id, staff_id: by.id }).delete();
		await appendToLogbook(trx, [
			{
				at: otium.now(),
				by,
				kind: 'handed_over',
				sessionId: session.id,
				body: { to: next.name, note: to.note, stays: to.stays }
			}
		]);
	});
	otium.hub.changed(session.id);
	return true;
}

/** Somebody to turn to during the day. */
export type Contact = { name: string; role: string; email: string | null };

/** The coordinators and grants officers of a session's site: who can do what a proctor can't. */
export async function contactsFor(db: Query, session: Session): Promise<Contact[]> {
	const rows: { name: string; role: StaffRole; email: string | null }[] = await db('staff')
		.join('staff_role', 'staff_role.staff_id', 'staff.id')
		.whereIn('role', ['coordinator', 'grants_officer'])
		.where((any) => any.whereNull('site_id').orWhere({ site_id: session.site.id }))
		.orderBy(['role', 'staff.name'])
		.distinct('staff.name', 'role', 'email');
	return rows.map(({ name, role, email }) => ({ name, role: ROLE_NAMES[role], email }));
}
