import { mayAnywhere, ROLE_NAMES, type Act } from '$core/access';
import { requireStaff } from '$lib/server/http';
import { mailLeaves } from '$lib/server/mail';
import { homeSite } from '$lib/server/places';
import { releasesFor } from '$lib/server/results';
import { signInRules } from '$lib/server/sign-in';
import type { LayoutServerLoad } from './$types';

/** Each for whoever may do one of these. */
const PLACES: { href: string; name: string; act?: Act; or?: Act }[] = [
	{ href: '/', name: 'Today' },
	{ href: '/papers', name: 'Papers', act: 'write_papers' },
	{ href: '/prepare', name: 'Prepare', act: 'prepare' },
	{ href: '/live', name: 'Live', act: 'see_session' },
	{ href: '/technical', name: 'Technical', act: 'see_technical' },
	{ href: '/grants', name: 'Grants', act: 'grant' },
	{ href: '/results', name: 'Results', act: 'see_released' },
	{ href: '/close-out', name: 'Close-out', act: 'see_closing', or: 'mark' },
	{ href: '/logbook', name: 'Logbook', act: 'see_logbook' }
];

export const load: LayoutServerLoad = async (event) => {
	const staff = requireStaff(event);
	const { otium } = event.locals;
	const hasResults = !mayAnywhere(staff, 'see_closing') && (await releasesFor(otium.db, staff, otium.now())).length > 0;
	const { idleMinutes } = await signInRules(otium.db);
	return {
		now: otium.now(),
		/** Whether a mail server is set up. */
		mailLeaves: mailLeaves(),
		idle: { minutes: idleMinutes, until: event.locals.staffSession?.idleUntil ?? Infinity },
		setsUp: mayAnywhere(staff, 'change_shared'),
		// A page about one session says that session's site instead: its times and the clock above them agree.
		site: await homeSite(otium.db, staff),
		person: {
			id: staff.id,
			name: staff.name,
			roles: [...new Set(staff.roles.map((held) => ROLE_NAMES[held.role]))].join(', ')
		},
		places: PLACES.filter(({ act, or }) => !act || mayAnywhere(staff, act) || (or && mayAnywhere(staff, or)))
			// A technician begins with the rooms.
			.filter(({ act }) => act || mayAnywhere(staff, 'see_session') || !mayAnywhere(staff, 'see_technical'))
			// Coordinators find it under Prepare, Places.
			.filter(({ act }) => act !== 'see_technical' || !mayAnywhere(staff, 'prepare'))
			// Nothing is offered where nothing is out; and under Close-out there is all of it.
			.filter(({ act }) => act !== 'see_released' || hasResults)
			.map(({ href, name }) => ({ href, name }))
	};
};
