import { requireStaff } from '$lib/server/http';
import { listNetworks, networksOf } from '$lib/server/places';
import { coordinatedSites, sitesOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium, address } = event.locals;
	const sites = coordinatedSites(staff);
	const networks = await listNetworks(otium.db, sites);
	return {
		networks,
		address,
		here: networksOf(networks, address).map((network) => network.name),
		sites: await sitesOf(otium.db, staff)
	};
};
