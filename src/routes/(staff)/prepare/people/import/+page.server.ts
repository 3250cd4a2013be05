import { SEPARATORS } from '$core/formats';
import { COLUMNS } from '$core/people';
import { requireStaff } from '$lib/server/http';
import { choicesFor } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { groups, rooms } = await choicesFor(event.locals.otium.db, staff, []);
	const sites = new Map([...rooms, ...groups].map((one) => [one.siteId, one.site]));
	// The readers of files stay on the server; the page gets the names alone.
	return { columns: COLUMNS, separators: SEPARATORS, groups, sites: [...sites].map(([id, name]) => ({ id, name })) };
};
