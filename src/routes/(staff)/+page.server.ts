import { redirect } from '@sveltejs/kit';
import { mayAnywhere } from '$core/access';
import { leftToSetUp } from '$lib/server/setting-up';
import { localDate } from '$core/time';
import { requireStaff } from '$lib/server/http';
import { administrationOn } from '$lib/server/places';
import { drawToday, waitingFor } from '$lib/server/today';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event);
	// Who has no session to see begins with what is theirs.
	if (!mayAnywhere(staff, 'see_session') && mayAnywhere(staff, 'see_technical')) redirect(303, '/technical');
	const { otium } = event.locals;
	const { site } = await event.parent();
	const administration = await administrationOn(otium.db, localDate(otium.now(), site.zone));
	return {
		waiting: await waitingFor(otium.db, staff, otium.now()),
		seesSessions: mayAnywhere(staff, 'see_session'),
		today: await drawToday(otium.db, staff, site.zone, otium.now()),
		administration: administration?.name ?? '',
		mayPrepare: mayAnywhere(staff, 'prepare'),
		/** For whoever can set it up. */
		leftToSetUp: mayAnywhere(staff, 'change_shared') ? await leftToSetUp(otium.db, event.url) : null
	};
};
