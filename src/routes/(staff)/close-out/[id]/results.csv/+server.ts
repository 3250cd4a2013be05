import { transact } from '$lib/server/db';
import { allowSession } from '$lib/server/http';
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
	const name = session.name.replace(/[^\p{L}\p{N} -]/gu, '').replace(/\s+/g, '-');
	return new Response(csv, {
		headers: {
			'content-type': 'text/csv; charset=utf-8',
			'content-disposition': `attachment; filename="results.csv"; filename*=UTF-8''${encodeURIComponent(`${name}.csv`)}`
		}
	});
};
