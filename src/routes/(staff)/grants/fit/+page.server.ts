import { error } from '@sveltejs/kit';
import { localDate } from '$core/time';
import { fitDay, grantSites } from '$lib/server/grants';
import { requireStaff } from '$lib/server/http';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'grant');
	const { otium } = event.locals;
	const now = otium.now();
	const sites = await grantSites(otium.db, staff);
	const { searchParams } = event.url;
	const here = sites.find((one) => one.id === searchParams.get('site')) ?? sites[0];
	if (!here) error(404, 'There is no site yet.');
	const wanted = searchParams.get('day') ?? '';
	const day = /^\d{4}-\d{2}-\d{2}$/.test(wanted) ? wanted : localDate(now, here.zone);
	return {
		sites: sites.map(({ id, name }) => ({ id, name })),
		here: { id: here.id, name: here.name },
		fit: await fitDay(otium.db, staff, here.id, day, now)
	};
};
