import { redirect } from '@sveltejs/kit';
import { mayAnywhere } from '$core/access';
import { localDate } from '$core/time';
import { requireStaff } from '$lib/server/http';
import { countOwed } from '$lib/server/owed';
import { countRequests } from '$lib/server/requests';
import { administrationOn } from '$lib/server/places';
import { drawToday } from '$lib/server/today';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event);
	// Who has no session to see begins with what is theirs.
	if (!mayAnywhere(staff, 'see_session') && mayAnywhere(staff, 'see_technical')) redirect(303, '/technical');
	const { otium } = event.locals;
	const { site } = await event.parent();
	const administration = await administrationOn(otium.db, localDate(otium.now(), site.zone));
	const grants = mayAnywhere(staff, 'grant');
	return {
		/** What waits for whoever gives grants; null: it is not theirs. */
		owed: grants ? await countOwed(otium.db, staff, otium.now()) : null,
		requests: grants ? await countRequests(otium.db, staff) : 0,
		today: await drawToday(otium.db, staff, site.zone, otium.now()),
		administration: administration?.name ?? '',
		mayPrepare: mayAnywhere(staff, 'prepare')
	};
};
