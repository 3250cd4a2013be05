import { transact } from '$lib/server/db';
import { download, inSession, route } from '$lib/server/http';
import { accountFor, byHandZip } from '$lib/server/closing';
import { appendToLogbook } from '$lib/server/logbook';

/** Texts, photos and PDFs that somebody has to mark, zipped. */
export const GET = route(inSession('see_closing'), async ({ otium, session, by }) => {
	const account = await accountFor(otium.db, session);
	await transact(otium.db, (trx) =>
		appendToLogbook(trx, [{ at: otium.now(), by, kind: 'results_exported', sessionId: session.id, body: {} }])
	);
	return download(`${session.name}, by hand.zip`, 'application/zip', byHandZip(otium, account));
});
