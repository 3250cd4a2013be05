import { localDate } from '$core/time';
import { noPage, requireStaff } from '$lib/server/http';
import { administrationOn, findAdministration, listAdministrations } from '$lib/server/places';
import { coordinatedSites } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { db, now } = event.locals.otium;
	const { site } = await event.parent();
	const asked = event.url.searchParams.get('id');
	const id = asked ?? (await administrationOn(db, localDate(now(), site.zone)))?.id;
	const administration = id === undefined ? null : await findAdministration(db, id);
	if (asked && !administration) noPage('not_found');
	return { administration, all: await listAdministrations(db), mayChange: coordinatedSites(staff) === null };
};
