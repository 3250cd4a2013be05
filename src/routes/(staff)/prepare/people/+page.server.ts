import { requireStaff } from '$lib/server/http';
import { findPeople, PAGE_SIZE } from '$lib/server/people';
import { choicesFor, sitesOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const { groups } = await choicesFor(otium.db, staff, []);
	const groupId = event.url.searchParams.get('group');
	return {
		groups,
		sites: await sitesOf(otium.db, staff),
		groupId: groups.some((group) => group.id === groupId) ? groupId! : '',
		pageSize: PAGE_SIZE,
		first: await findPeople(otium.db, staff, { text: '', groupId, siteId: null, withLeft: false, page: 0 })
	};
};
