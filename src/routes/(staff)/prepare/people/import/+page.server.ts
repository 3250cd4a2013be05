import { SEPARATORS } from '$core/formats';
import { COLUMNS } from '$core/people';
import { requireStaff } from '$lib/server/http';
import { choicesFor, sitesOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { db } = event.locals.otium;
	const { groups } = await choicesFor(db, staff, []);
	// The readers of files stay on the server; the page gets the names alone.
	return { columns: COLUMNS, separators: SEPARATORS, groups, sites: await sitesOf(db, staff) };
};
