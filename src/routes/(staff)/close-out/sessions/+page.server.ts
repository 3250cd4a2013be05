import { may } from '$core/access';
import { columnCounts } from '$core/closing';
import { giveWay } from '$lib/server/event-loop';
import { requireStaff } from '$lib/server/http';
import { ledgerFor } from '$lib/server/closing';
import { findSessions, placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'see_closing');
	const { otium } = event.locals;
	const { here } = await event.parent();
	if (!here) return { rows: [] };
	const begun = await findSessions(otium.db, (query) =>
		query.where({ 'session.administration_id': here.id }).where('opens', '<=', otium.now())
	);
	const sessions = begun.filter((session) => may(staff, 'see_closing', placeOf(session)));
	const rows = [];
	for (const session of sessions.reverse()) {
		const ledger = await ledgerFor(otium.db, session.id);
		await giveWay();
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
			columns: columnCounts(ledger)
		});
	}
	return { rows };
};
