import { redirect } from '@sveltejs/kit';
import { may } from '$core/access';
import { requireStaff } from '$lib/server/http';
import { doorOpensAt, findSessions, placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

/** Rooms that have something going on; straight into the only one. */
export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'see_session');
	const { otium } = event.locals;
	const now = otium.now();
	const open = (await findSessions(otium.db, (query) => query.whereNull('ended_at'))).filter((session) =>
		may(staff, 'see_session', placeOf(session))
	);
	const running = open.filter((session) => now >= doorOpensAt(session));
	if (running.length === 1 && event.url.searchParams.get('all') === null) redirect(303, `/live/${running[0].id}`);
	const tell = (session: (typeof open)[number]) => ({
		id: session.id,
		name: session.name,
		room: session.room.name,
		opens: session.window.opens,
		zone: session.site.zone
	});
	return {
		running: running.map(tell),
		later: open
			.filter((session) => !running.includes(session))
			.slice(0, 30)
			.map(tell)
	};
};
