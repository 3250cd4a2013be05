import { requireSession } from '$lib/server/http';
import { peopleById } from '$lib/server/people';
import { listSheets } from '$lib/server/rules';
import { choicesFor, inputOf, lockedBecause } from '$lib/server/session';
import type { PageServerLoad } from './$types';

export const load: PageServerLoad = async (event) => {
	const { staff, session } = await requireSession(event, event.params.id, 'prepare');
	const { otium } = event.locals;
	const locked = lockedBecause(session, otium.now());
	const input = await inputOf(otium.db, session);
	return {
		site: session.site,
		choices: await choicesFor(otium.db, staff, await listSheets(otium.db)),
		input,
		draft: { id: '', revision: 0, savedAt: 0, added: await peopleById(otium.db, input.alsoIds) },
		edit: { id: session.id, revision: session.revision },
		mayBeCalledOff: session.endedAt === null,
		locked:
			session.endedAt !== null
				? 'This session has ended, so it can no longer be changed.'
				: locked && `${locked} Give minutes or windows to those who need them.`
	};
};
