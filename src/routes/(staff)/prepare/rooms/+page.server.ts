import { requireStaff } from '$lib/server/http';
import { listRooms } from '$lib/server/places';
import { coordinatedSites, sitesOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const sites = coordinatedSites(staff);
	return {
		rooms: await listRooms(otium.db, sites),
		sites: await sitesOf(otium.db, staff)
	};
};
