import { route, staff } from '$lib/server/http';
import { findPeople } from '$lib/server/people';

/** A page of candidates by any part of name, number or group. */
export const GET = route(staff('prepare'), ({ url, otium, staff }) => {
	const get = (name: string) => url.searchParams.get(name)?.slice(0, 100) ?? '';
	return findPeople(otium.db, staff, {
		text: get('text').trim(),
		groupId: get('group') || null,
		siteId: get('site') || null,
		withLeft: get('left') === 'yes',
		page: Math.max(0, Math.floor(Number(get('page'))) || 0)
	});
});
