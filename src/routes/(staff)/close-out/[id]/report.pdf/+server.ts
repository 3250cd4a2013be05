import { download, inSession, route } from '$lib/server/http';
import { sessionReport } from '$lib/server/results';

/** Who sat in a session, how it ended and what happened: for the folder. */
export const GET = route(inSession('see_ledger'), async ({ otium, session }) =>
	download(`${session.name}, report.pdf`, 'application/pdf', await sessionReport(otium, session))
);
