import { fail } from '$core/problem';
import { inSession, route } from '$lib/server/http';
import { paperVersion } from '$lib/server/paper';
import { isOnRoster } from '$lib/server/session';
import { formOf, loadSitting } from '$lib/server/sitting';

/** A question as one candidate has it, by its place from 1: their order, their choices; without a key and without answers. */
export const GET = route(inSession('see_session'), async ({ otium, session, params }) => {
	const isHere = await isOnRoster(otium.db, session.id, params.sitting);
	const one = isHere ? await loadSitting(otium.db, params.sitting, otium.now()) : null;
	const form = one && (await formOf(otium.db, one.sitting.id));
	const question = form?.questions[Number(params.place) - 1];
	if (!one || !question) fail('not_found');
	const { pictures = {} } = (await paperVersion(otium.db, one.paperId)).content;
	return { question, picture: pictures[question.picture ?? ''] ?? null };
});
