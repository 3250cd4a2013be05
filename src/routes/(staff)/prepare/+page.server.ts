import { may } from '$core/access';
import { localDate } from '$core/time';
import { requireStaff } from '$lib/server/http';
import { doorOpensAt, findSessions, listDrafts, placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const now = otium.now();
	const counts: { session_id: string; count: number }[] = await otium
		.db('roster')
		.groupBy('session_id')
		.select('session_id')
		.count('* as count');
	const expected = new Map(counts.map((row) => [row.session_id, row.count]));
	const sessions = (await findSessions(otium.db, () => {})).filter((session) =>
		may(staff, 'prepare', placeOf(session))
	);
	return {
		drafts: await listDrafts(otium.db, staff),
		planned: Math.max(0, Number(event.url.searchParams.get('planned')) || 0),
		sessions: sessions.map((session) => {
			const zone = session.site.zone;
			const [day, today] = [localDate(session.window.opens, zone), localDate(now, zone)];
			return {
				id: session.id,
				name: session.name,
				kind: session.kind,
				room: session.room.name,
				site: session.site.name,
				opens: session.window.opens,
				zone,
				expected: expected.get(session.id) ?? 0,
				hasProctor: session.proctorIds.length > 0,
				part: day === today ? ('today' as const) : day > today ? ('later' as const) : ('past' as const),
				stage:
					session.endedAt !== null
						? 'ended'
						: now >= session.window.opens
							? 'running'
							: now >= doorOpensAt(session)
								? 'door open'
								: 'planned'
			};
		})
	};
};
