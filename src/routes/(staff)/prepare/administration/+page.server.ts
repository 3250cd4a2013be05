import { requireStaff } from '$lib/server/http';
import { findAdministration } from '$lib/server/places';
import { coordinatedSites } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const administration = await findAdministration(event.locals.otium.db);
	return { administration, mayChange: coordinatedSites(staff) === null };
};
