import { grantHistory } from '$lib/server/grants';
import { noPage, requireStaff } from '$lib/server/http';
import { findPerson } from '$lib/server/people';
import { requestsAbout } from '$lib/server/requests';
import { coordinatesSite } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const person = await findPerson(otium.db, event.params.id, otium.now());
	if (!person) noPage('not_found');
	if (!coordinatesSite(staff, person.site.id)) noPage('not_yours');
	const groups: { id: string; name: string }[] = await otium
		.db('candidate_group')
		.where({ site_id: person.site.id })
		.orderBy('name')
		.select('id', 'name');
	return {
		person,
		groups,
		requests: await requestsAbout(otium.db, person.id),
		given: await grantHistory(otium.db, person.id, person.site.zone)
	};
};
