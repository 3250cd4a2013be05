import { may } from '$core/access';
import { localDate } from '$core/time';
import { requireStaff } from '$lib/server/http';
import { readinessOf } from '$lib/server/readiness';
import { findSessions, isOnDay, placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

/** What is not ready, for every session of a local day. */
export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const { site } = await event.parent();
	const now = otium.now();
	const asked = event.url.searchParams.get('day') ?? '';
	const day = /^\d{4}-\d{2}-\d{2}$/.test(asked) ? asked : localDate(now, site.zone);
	const open = await findSessions(otium.db, (query) => query.whereNull('ended_at'));
	const mine = open.filter((session) => may(staff, 'prepare', placeOf(session)) && isOnDay(session, day));
	const sessions = [];
	for (const session of mine) {
		const ready = await readinessOf(otium.db, session, now);
		sessions.push({
			id: session.id,
			name: session.name,
			room: session.room.name,
			opens: session.window.opens,
			zone: session.site.zone,
			candidates: ready?.plan.facts.candidates ?? 0,
			lines: ready?.lines ?? []
		});
	}
	return { day, sessions };
};
