import type { StaffMember, StaffRole } from '$core/access';

/** Somebody of the staff with one role, at one site or (null) at all. */
export const somebody = (id: string, role: StaffRole, siteId: string | null): StaffMember => ({
	id,
	name: id,
	roles: [{ role, siteId }]
});
