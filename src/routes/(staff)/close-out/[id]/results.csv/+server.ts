import { transact } from '$lib/server/db';
import { download, inSession, route } from '$lib/server/http';
import { accountFor, resultsCsv } from '$lib/server/closing';
import { appendToLogbook } from '$lib/server/logbook';

export const GET = route(inSession('see_closing'), async ({ otium, session, by }) => {
	const csv = resultsCsv(session, await accountFor(otium.db, session));
	await transact(otium.db, (trx) =>
		appendToLogbook(trx, [{ at: otium.now(), by, kind: 'results_exported', sessionId: session.id, body: {} }])
	);
	return download(`${session.name}.csv`, 'text/csv; charset=utf-8', csv);
});
