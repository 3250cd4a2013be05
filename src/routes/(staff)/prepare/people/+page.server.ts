import { requireStaff } from '$lib/server/http';
import { findPeople, PAGE_SIZE } from '$lib/server/people';
import { choicesFor } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const { groups, rooms } = await choicesFor(otium.db, staff, []);
	const groupId = event.url.searchParams.get('group');
	const sites = new Map([...groups, ...rooms].map((one) => [one.siteId, one.site]));
	return {
		groups,
		sites: [...sites].map(([id, name]) => ({ id, name })),
		groupId: groups.some((group) => group.id === groupId) ? groupId! : '',
		pageSize: PAGE_SIZE,
		first: await findPeople(otium.db, staff, { text: '', groupId, siteId: null, withLeft: false, page: 0 })
	};
};
