import { mayAnywhere } from '$core/access';
import { localDate } from '$core/time';
import { requireStaff } from '$lib/server/http';
import { administrationOn } from '$lib/server/places';
import { drawToday } from '$lib/server/today';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event);
	const { otium } = event.locals;
	const { site } = await event.parent();
	const administration = await administrationOn(otium.db, localDate(otium.now(), site.zone));
	return {
		today: await drawToday(otium.db, staff, site.zone, otium.now()),
		administration: administration?.name ?? '',
		mayPrepare: mayAnywhere(staff, 'prepare')
	};
};
