import { requireStaff } from '$lib/server/http';
import { grantsOfDay } from '$lib/server/grants';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'grant');
	const { otium } = event.locals;
	const { site } = await event.parent();
	return { lines: await grantsOfDay(otium.db, staff, site.zone, otium.now()) };
};
