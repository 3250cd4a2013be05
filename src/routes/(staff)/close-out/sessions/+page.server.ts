import { may } from '$core/access';
import { requireStaff } from '$lib/server/http';
import { accountFor } from '$lib/server/closing';
import { findSessions, placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'see_closing');
	const { otium } = event.locals;
	const now = otium.now();
	const sessions = (await findSessions(otium.db, (query) => query.where('opens', '<=', now))).filter((session) =>
		may(staff, 'see_closing', placeOf(session))
	);
	const rows = [];
	for (const session of sessions.reverse()) {
		const { ledger } = await accountFor(otium.db, session);
		rows.push({
			id: session.id,
			name: session.name,
			room: session.room.name,
			site: session.site.name,
			kind: session.kind,
			opens: session.window.opens,
			zone: session.site.zone,
			ended: session.endedAt !== null,
			expected: ledger.expected,
			addsUp: ledger.addsUp,
			columns: Object.fromEntries(Object.entries(ledger.columns).map(([column, ids]) => [column, ids.length]))
		});
	}
	return { rows };
};
