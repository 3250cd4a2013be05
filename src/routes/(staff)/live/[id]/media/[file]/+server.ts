import { mediaOf } from '$core/paper';
import { fail } from '$core/problem';
import { inSession, route } from '$lib/server/http';
import type { Query } from '$lib/server/db';
import { mediumResponse, readMedium } from '$lib/server/media';
import { paperVersion } from '$lib/server/paper';

/** A file of a paper that is sat here, for whoever looks at a candidate's question. */
export const GET = route(inSession('see_session'), async ({ otium, session, params }) => {
	const found = (await isSatHere(otium.db, session.id, params.file)) ? await readMedium(otium, params.file) : null;
	if (!found) fail('not_found');
	return mediumResponse(found);
});

/** Whoever was carried over from elsewhere sits the paper that they began. */
async function isSatHere(db: Query, sessionId: string, file: string): Promise<boolean> {
	const papers: string[] = await db('sitting').where({ session_id: sessionId }).distinct().pluck('paper_id');
	const versions = await Promise.all(papers.map((id) => paperVersion(db, id)));
	return versions.some(({ content }) => mediaOf(content).some((medium) => medium.file === file));
}
