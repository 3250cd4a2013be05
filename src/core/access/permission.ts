/** What staff can be. A candidate is not staff and holds none of these. */
export const STAFF_ROLES = [
	'coordinator',
	'author',
	'marker',
	'proctor',
	'site_proctor',
	'technician',
	'grants_officer',
	'closing_officer'
] as const;
export type StaffRole = (typeof STAFF_ROLES)[number];

export const ROLE_NAMES: Record<StaffRole, string> = {
	coordinator: 'Coordinator',
	author: 'Author',
	marker: 'Marker',
	proctor: 'Proctor',
	site_proctor: 'Proctor of a site',
	technician: 'Technical staff',
	grants_officer: 'Grants officer',
	closing_officer: 'Closing officer'
};

/** What somebody with a role does, for whoever gives it. */
export const ROLE_WORDS: Record<StaffRole, string> = {
	coordinator: 'plans everything: people, rooms, sessions, staff, results',
	author: 'writes papers and marks what is given to them',
	marker: 'marks answers that are given to them, without names',
	proctor: 'runs the rooms that name them',
	site_proctor: 'runs every room of a site',
	technician: 'sees what rooms and devices need, and ticks it off',
	grants_officer: 'gives extra time and other windows',
	closing_officer: 'closes, corrects and releases results'
};

/** A role, at one site or (null) at all. */
export type HeldRole = { role: StaffRole; siteId: string | null };
export type StaffMember = { id: string; name: string; roles: HeldRole[] };

export type Act =
	| 'see_session'
	| 'see_technical'
	| 'run_session'
	| 'prepare'
	| 'write_papers'
	| 'change_shared'
	| 'grant'
	| 'reopen'
	| 'see_ledger'
	| 'see_closing'
	| 'mark'
	| 'decide'
	| 'correct'
	| 'sign_off'
	| 'close'
	| 'release'
	| 'see_released'
	| 'see_logbook';

/** What each act lets somebody do, for the page that tells them. */
export const ACT_WORDS: Record<Act, string> = {
	see_session: 'see the day and its sessions',
	see_technical: 'see what rooms and devices need for each session, and tick it done',
	run_session: 'run a room: the door, holds, minutes, ending',
	prepare: 'prepare: people, rooms, rules, sessions, mail, staff',
	write_papers: 'write papers: questions, pools, keys, versions',
	change_shared:
		'change what all sites share: administrations, sites, texts of mails, how staff sign in, how long things are kept',
	grant: 'give extra time and own windows',
	reopen: 'reopen and set aside sittings',
	see_ledger: 'read who sat in a session and what happened',
	see_closing: 'see results and how the closing stands',
	mark: 'mark answers that are given to them, without names',
	decide: 'decide about incidents and results, and say who marks what',
	correct: 'propose corrections of questions, and confirm those of others',
	sign_off: 'sign for a site',
	close: 'close an administration',
	release: 'release results to candidates, and send them elsewhere',
	see_released: 'read results that were released to their role',
	see_logbook: 'read and verify the logbook'
};
export const ACTS = Object.keys(ACT_WORDS) as Act[];

/** Who may be named to supervise a session. */
export const SUPERVISING = ['proctor', 'site_proctor', 'coordinator'] as const satisfies readonly StaffRole[];

/** Where an act would take effect. */
export type Place = { siteId: string; proctorIds: string[] };

const MAY: Record<StaffRole, readonly Act[]> = {
	coordinator: [
		'see_session',
		'run_session',
		'see_technical',
		'prepare',
		'write_papers',
		'change_shared',
		'grant',
		'reopen',
		'see_ledger',
		'see_closing',
		'mark',
		'decide',
		'correct',
		'sign_off',
		'release',
		'see_logbook'
	],
	author: ['write_papers', 'mark', 'see_released'],
	marker: ['mark', 'see_released'],
	proctor: ['see_session', 'run_session', 'see_ledger', 'see_released'],
	// The same in every session of the site, whether it names them or not.
	site_proctor: ['see_session', 'run_session', 'see_ledger', 'see_released'],
	technician: ['see_technical'],
	grants_officer: ['grant', 'see_released'],
	closing_officer: ['see_ledger', 'see_closing', 'correct', 'close', 'release', 'see_logbook']
};

/** Whether a role lets somebody do something where it is held. What all sites share takes one that is held at all. */
export function holds({ role, siteId }: HeldRole, act: Act): boolean {
	return MAY[role].includes(act) && (act !== 'change_shared' || siteId === null);
}

/** Whether somebody may do something there. A proctor acts in the sessions that name them, and nowhere else. */
export function may(staff: StaffMember, act: Act, place: Place): boolean {
	return staff.roles.some((held) => {
		const { role, siteId } = held;
		if (siteId !== null && siteId !== place.siteId) return false;
		if (!holds(held, act)) return false;
		return role !== 'proctor' || place.proctorIds.includes(staff.id);
	});
}

/** Whether somebody may do something at any place at all: what the top bar offers follows from it. */
export function mayAnywhere(staff: StaffMember, act: Act): boolean {
	return staff.roles.some((held) => holds(held, act));
}

/** The sites at which somebody may do something; null: at all. A proctor's own sessions are not a whole site. */
export function sitesWith(staff: StaffMember, act: Act): string[] | null {
	const held = staff.roles.filter((one) => one.role !== 'proctor' && holds(one, act));
	return held.some(({ siteId }) => siteId === null) ? null : held.map(({ siteId }) => siteId!);
}

/** As what somebody does this: the role that lets them, so that the record names it and no other that they hold as well. */
export function roleFor(staff: StaffMember, act: Act): StaffRole {
	return (staff.roles.find((held) => holds(held, act)) ?? staff.roles[0]).role;
}

/** The roles that would let somebody do what they may not. */
export function rolesFor(act: Act): StaffRole[] {
	return STAFF_ROLES.filter((role) => MAY[role].includes(act));
}
