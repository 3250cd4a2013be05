import { may } from '$core/access';
import { localDate } from '$core/time';
import { grantsOfDay, toLine } from '$lib/server/grants';
import { requireStaff } from '$lib/server/http';
import { placeOf } from '$lib/server/session';
import { loadSitting } from '$lib/server/sitting';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'grant');
	const { otium } = event.locals;
	const { site } = await event.parent();
	const now = otium.now();
	const wanted = event.url.searchParams.get('day') ?? '';
	const day = /^\d{4}-\d{2}-\d{2}$/.test(wanted) ? wanted : localDate(now, site.zone);
	const forId = event.url.searchParams.get('for');
	const one = forId ? await loadSitting(otium.db, forId, now) : null;
	return {
		day,
		give: event.url.searchParams.get('give') ?? '',
		lines: await grantsOfDay(otium.db, staff, { day, now }),
		/** Whom the panel opens for. */
		chosen: one && may(staff, 'grant', placeOf(one.session)) ? toLine(one) : null
	};
};
