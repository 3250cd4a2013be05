import { json } from '@sveltejs/kit';
import { mayAnywhere } from '$core/access';
import { NOT_YOURS, problem, SIGNED_OUT } from '$lib/server/http';
import { findPeople } from '$lib/server/people';
import type { RequestHandler } from './$types';

/** A page of candidates by any part of name, number or group. */
export const GET: RequestHandler = async ({ url, locals: { otium, staff } }) => {
	if (!staff) return problem(401, SIGNED_OUT);
	if (!mayAnywhere(staff, 'prepare')) return problem(403, NOT_YOURS);
	const get = (name: string) => url.searchParams.get(name)?.slice(0, 100) ?? '';
	const found = await findPeople(otium.db, staff, {
		text: get('text').trim(),
		groupId: get('group') || null,
		siteId: get('site') || null,
		withLeft: get('left') === 'yes',
		page: Math.max(0, Math.floor(Number(get('page'))) || 0)
	});
	return json(found);
};
