import { transact } from '$lib/server/db';
import { allowSession, download } from '$lib/server/http';
import { accountFor, resultsCsv } from '$lib/server/closing';
import { appendToLogbook } from '$lib/server/logbook';
import type { RequestHandler } from './$types';

export const GET: RequestHandler = async (event) => {
	const allowed = await allowSession(event, event.params.id, 'see_closing');
	if (!allowed.ok) return allowed.response;
	const { otium, session, by } = allowed;
	const csv = resultsCsv(session, await accountFor(otium.db, session));
	await transact(otium.db, (trx) =>
		appendToLogbook(trx, [{ at: otium.now(), by, kind: 'results_exported', sessionId: session.id, body: {} }])
	);
	return download(`${session.name}.csv`, 'text/csv; charset=utf-8', csv);
};
