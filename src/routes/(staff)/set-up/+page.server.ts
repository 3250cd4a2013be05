import { isHereAlone } from '$core/setting-up';
import { requireStaff } from '$lib/server/http';
import { houseCard } from '$lib/server/house-card';
import { houseFacts } from '$lib/server/setting-up';
import type { PageServerLoad } from './$types';

/** The clocks of the world, without those that are one of them by another name. */
const ZONES = Intl.supportedValuesOf('timeZone');

export const load: PageServerLoad = async (event) => {
	requireStaff(event, 'change_shared');
	const { db } = event.locals.otium;
	const card = await houseCard(db);
	const sites: { name: string; zone: string }[] = await db('site').orderBy('name').select('name', 'zone');
	return {
		card,
		sites,
		facts: await houseFacts(db, event.url),
		reached: event.url.origin,
		reachedHereAlone: isHereAlone(event.url.origin),
		zones: ZONES
	};
};
