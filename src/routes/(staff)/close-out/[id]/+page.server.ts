import { may } from '$core/access';
import { accountFor, countByHand } from '$lib/server/closing';
import { requireSession } from '$lib/server/http';
import { incidentsOf } from '$lib/server/incidents';
import { searchLogbook } from '$lib/server/logbook';
import { placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

/** What a proctor's own log shows of a session. */
const MOST_ENTRIES = 1_000;

export const load: PageServerLoad = async (event) => {
	const { session, staff } = await requireSession(event, event.params.id, 'see_ledger');
	const { db } = event.locals.otium;
	const account = await accountFor(db, session);
	const { ledger, lines } = account;
	const place = placeOf(session);
	const seesResults = may(staff, 'see_closing', place);
	return {
		session: {
			id: session.id,
			name: session.name,
			kind: session.kind,
			room: session.room.name,
			zone: session.site.zone,
			opens: session.window.opens,
			endedAt: session.endedAt
		},
		seesResults,
		// Once it is over, what was written on paper can be typed in.
		typesIn: session.endedAt !== null && may(staff, 'decide', place),
		seesLogbook: may(staff, 'see_logbook', place),
		ledger,
		byHand: seesResults ? countByHand(account) : 0,
		// Scores are for those whose role says so; a proctor reads who sat and what happened.
		lines: lines.map(({ score, counted, ...line }) => ({
			...line,
			points: seesResults ? (score?.points ?? null) : null,
			outOf: seesResults ? (score?.outOf ?? null) : null,
			counted: seesResults ? counted : null
		})),
		incidents: await incidentsOf(db, session.id),
		entries: await searchLogbook(db, { sessionId: session.id, limit: MOST_ENTRIES })
	};
};
