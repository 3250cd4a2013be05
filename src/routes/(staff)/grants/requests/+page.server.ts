import { grantSites } from '$lib/server/grants';
import { requireStaff } from '$lib/server/http';
import { requestsFor } from '$lib/server/requests';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'grant');
	const { otium } = event.locals;
	const sites = await grantSites(otium.db, staff);
	return { ...(await requestsFor(otium.db, staff)), sites: sites.map(({ id, name }) => ({ id, name })) };
};
