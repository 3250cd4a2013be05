import { ownerOfLink } from '$lib/server/sign-in';
import { mustBeAt } from '../entered';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const link = event.url.searchParams.get('link');
	// Its owner is not known by the address alone: no other site and no other page learns of the link.
	event.setHeaders({ 'referrer-policy': 'no-referrer' });
	if (link === null) return { link: null, ...mustBeAt('password', event), isGone: false };
	const owner = await ownerOfLink(event.locals.otium.db, link, event.locals.otium.now());
	return { link, to: '/', name: owner?.name ?? '', isGone: owner === null };
};
