import { requireStaff } from '$lib/server/http';
import { choicesFor, sitesOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { db } = event.locals.otium;
	const { groups } = await choicesFor(db, staff, []);
	return { sites: await sitesOf(db, staff), groups };
};
