import { mediaOf } from '$core/paper';
import { fail } from '$core/problem';
import { inSession, route } from '$lib/server/http';
import { mediumResponse, readMedium } from '$lib/server/media';
import { paperVersion } from '$lib/server/paper';

/** A file of the paper that is sat here, for whoever looks at a candidate's question. */
export const GET = route(inSession('see_session'), async ({ otium, session, params }) => {
	const { content } = await paperVersion(otium.db, session.paper.id);
	const isOfPaper = mediaOf(content).some(({ file }) => file === params.file);
	const found = isOfPaper ? await readMedium(otium, params.file) : null;
	if (!found) fail('not_found');
	return mediumResponse(found);
});
