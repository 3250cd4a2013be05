import { may } from '$core/access';
import { columnCounts, LEDGER_COLUMNS } from '$core/closing';
import { byName, countByHand, ledgerFor, linesFor } from '$lib/server/closing';
import { requireSession } from '$lib/server/http';
import { incidentsOf } from '$lib/server/incidents';
import { countOfSession, logbookPage } from '$lib/server/logbook';
import { handQuestions } from '$lib/server/marking';
import { MOST_LISTED } from '$lib/server/most-listed';
import { placeOf } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { session, staff } = await requireSession(event, event.params.id, 'see_ledger');
	const { db } = event.locals.otium;
	const ledger = await ledgerFor(db, session.id);
	const asked = event.url.searchParams.get('in');
	const before = Number(event.url.searchParams.get('before')) || undefined;
	const column = LEDGER_COLUMNS.find((one) => one === asked) ?? null;
	const here = column && new Set(ledger.columns[column]);
	const everyone = await byName(db, session.id);
	const chosen = everyone.filter((id) => here === null || here.has(id));
	const listed = new Set(chosen.slice(0, MOST_LISTED));
	const place = placeOf(session);
	const seesResults = may(staff, 'see_closing', place);
	// How many answers people still have to mark is counted over everyone.
	const countsByHand = seesResults && (await handQuestions(db, session.paper.id)).length > 0;
	const lines = await linesFor(db, session, countsByHand ? everyone : [...listed]);
	return {
		site: session.site,
		session: {
			id: session.id,
			name: session.name,
			administrationId: session.administrationId,
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
		ledger: {
			expected: ledger.expected,
			accounted: ledger.accounted,
			missing: ledger.missing.length,
			surplus: ledger.surplus.length,
			addsUp: ledger.addsUp,
			columns: columnCounts(ledger)
		},
		column,
		of: chosen.length,
		byHand: countsByHand ? countByHand({ lines }) : 0,
		// Scores are for those whose role says so; a proctor reads who sat and what happened.
		lines: lines
			.filter(({ sittingId }) => listed.has(sittingId))
			.map(({ score, counted, ...line }) => ({
				...line,
				points: seesResults ? (score?.points ?? null) : null,
				outOf: seesResults ? (score?.outOf ?? null) : null,
				counted: seesResults ? counted : null
			})),
		incidents: await incidentsOf(db, session.id),
		log: {
			...(await logbookPage(db, { sessionId: session.id, before, limit: MOST_LISTED })),
			isEarlier: before !== undefined,
			of: await countOfSession(db, session.id)
		}
	};
};
