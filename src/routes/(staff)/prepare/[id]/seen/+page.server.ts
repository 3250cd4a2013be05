import { randomInt } from 'node:crypto';
import { noPage, requireSession } from '$lib/server/http';
import { pictureOfNobody } from '$lib/server/live';
import { mayAnywhere } from '$core/access';
import type { PageServerLoad } from './$types';

/** For whoever may see the questions anyhow. */
export const load: PageServerLoad = async (event) => {
	const { session, staff } = await requireSession(event, event.params.id, 'prepare');
	if (!mayAnywhere(staff, 'write_papers')) noPage('not_yours');
	const { db } = event.locals.otium;
	return { id: session.id, name: session.name, seen: await pictureOfNobody(db, session, randomInt(1_000_000)) };
};
