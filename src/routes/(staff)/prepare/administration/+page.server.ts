import { error } from '@sveltejs/kit';
import { localDate } from '$core/time';
import { NO_SUCH_THING, requireStaff } from '$lib/server/http';
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
	if (asked && !administration) error(404, NO_SUCH_THING);
	return { administration, all: await listAdministrations(db), mayChange: coordinatedSites(staff) === null };
};
