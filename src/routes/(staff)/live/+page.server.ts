import { redirect } from '@sveltejs/kit';
import { may } from '$core/access';
import { requireStaff } from '$lib/server/http';
import { drawForPage, MOST_IN_PAGE } from '$lib/server/live';
import { doorOpensAt, findSessions, placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

/** Rooms that have something going on, as a wall; straight into the only one. */
export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'see_session');
	const { otium } = event.locals;
	const now = otium.now();
	const open = (await findSessions(otium.db, (query) => query.whereNull('ended_at').orderBy('opens'))).filter(
		(session) => may(staff, 'see_session', placeOf(session))
	);
	const running = open.filter((session) => now >= doorOpensAt(session));
	if (running.length === 1 && event.url.searchParams.get('all') === null) redirect(303, `/live/${running[0].id}`);
	const rooms = [];
	let seats = 0;
	for (const session of running) {
		const drawn = await drawForPage(otium, session.id, now, MOST_IN_PAGE - seats);
		if (!drawn) continue;
		seats += drawn.picture.seats.length;
		rooms.push({
			...drawn,
			coordinates: may(staff, 'reopen', placeOf(session)),
			isMasked: event.cookies.get(`otium-masked-${session.id}`) === '1'
		});
	}
	return {
		rooms,
		later: open
			.filter((session) => !running.includes(session))
			.slice(0, 30)
			.map((session) => ({
				id: session.id,
				name: session.name,
				room: session.room.name,
				opens: session.window.opens,
				zone: session.site.zone
			}))
	};
};
