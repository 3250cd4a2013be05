/** What staff can be. A candidate is not staff and holds none of these. */
export const STAFF_ROLES = ['coordinator', 'proctor', 'closing_officer'] as const;
export type StaffRole = (typeof STAFF_ROLES)[number];

export const ROLE_NAMES: Record<StaffRole, string> = {
	coordinator: 'Coordinator',
	proctor: 'Proctor',
	closing_officer: 'Closing officer'
};

/** A role, at one site or (null) at all. */
export type HeldRole = { role: StaffRole; siteId: string | null };
export type StaffMember = { id: string; name: string; roles: HeldRole[] };

export type Act = 'see_session' | 'run_session' | 'prepare' | 'grant' | 'reopen' | 'see_closing' | 'see_logbook';

/** Where an act would take effect. */
export type Place = { siteId: string; proctorIds: string[] };

const MAY: Record<StaffRole, readonly Act[]> = {
	coordinator: ['see_session', 'run_session', 'prepare', 'grant', 'reopen', 'see_closing', 'see_logbook'],
	proctor: ['see_session', 'run_session'],
	closing_officer: ['see_closing', 'see_logbook']
};

/** Whether somebody may do something there. A proctor acts in the sessions that name them, and nowhere else. */
export function may(staff: StaffMember, act: Act, place: Place): boolean {
	return staff.roles.some(({ role, siteId }) => {
		if (siteId !== null && siteId !== place.siteId) return false;
		if (!MAY[role].includes(act)) return false;
		return role !== 'proctor' || place.proctorIds.includes(staff.id);
	});
}

/** Whether somebody may do something at any place at all: what the top bar offers follows from it. */
export function mayAnywhere(staff: StaffMember, act: Act): boolean {
	return staff.roles.some(({ role }) => MAY[role].includes(act));
}
