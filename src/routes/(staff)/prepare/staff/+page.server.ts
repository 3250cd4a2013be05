import { requireStaff } from '$lib/server/http';
import { listStaff } from '$lib/server/identity';
import { coordinatedSites } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const sites = coordinatedSites(staff);
	const all = await listStaff(otium.db);
	return {
		/** At which sites this coordinator may give roles; null: at all. */
		mySites: sites,
		staff:
			sites === null
				? all
				: all.filter((one) => one.roles.some((held) => held.siteId !== null && sites.includes(held.siteId))),
		sites: (await otium.db('site').orderBy('name', 'desc').select('id', 'name')) as { id: string; name: string }[]
	};
};
