import { randomInt } from 'node:crypto';
import { mayAnywhere } from '$core/access';
import { fullName } from '$core/names';
import { noPage, requireSession } from '$lib/server/http';
import { pictureOfNobody, pictureOfOne } from '$lib/server/live';
import type { PageServerLoad } from './$types';

/** For whoever may see the questions anyhow. `as` names a sitting of the session: seen with what that candidate was granted. */
export const load: PageServerLoad = async (event) => {
	const { session, staff } = await requireSession(event, event.params.id, 'prepare');
	if (!mayAnywhere(staff, 'write_papers')) noPage('not_yours');
	const { db } = event.locals.otium;
	const as = event.url.searchParams.get('as') ?? '';
	const seed = randomInt(1_000_000);
	const seen = as === '' ? await pictureOfNobody(db, session, seed) : await pictureOfOne(db, session, as, seed);
	if (!seen) noPage('not_found');
	const people: { id: string; given: string; family: string }[] = await db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where({ session_id: session.id })
		.whereNull('next_attempt_id')
		.orderBy(['family', 'given'])
		.select('sitting.id', 'given', 'family');
	return {
		id: session.id,
		name: session.name,
		as,
		people: people.map(({ id, ...name }) => ({ id, name: fullName(name) })),
		seen
	};
};
