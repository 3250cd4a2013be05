import { requireStaff } from '$lib/server/http';
import { countOwed } from '$lib/server/owed';
import { countRequests } from '$lib/server/requests';
import type { LayoutServerLoad } from './$types';

/** How much waits on each of the Grants pages. */
export const load: LayoutServerLoad = async (event) => {
	const staff = requireStaff(event, 'grant');
	const { otium } = event.locals;
	const { count } = await countOwed(otium.db, staff, otium.now());
	return { counts: { owed: count, requests: await countRequests(otium.db, staff) } };
};
