import { mayAnywhere } from '$core/access';
import { requireStaff } from '$lib/server/http';
import { drawToday } from '$lib/server/today';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event);
	const { otium } = event.locals;
	const { site } = await event.parent();
	const administration = await otium.db('administration').first('name');
	return {
		today: await drawToday(otium.db, staff, site.zone, otium.now()),
		administration: (administration?.name as string) ?? '',
		mayPrepare: mayAnywhere(staff, 'prepare')
	};
};
