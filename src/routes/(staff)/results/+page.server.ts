import { requireStaff } from '$lib/server/http';
import { releasedTo } from '$lib/server/results';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'see_released');
	return { released: await releasedTo(event.locals.otium, staff) };
};
