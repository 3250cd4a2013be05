import { requireStaff } from '$lib/server/http';
import { may } from '$core/access';
import { listSheets } from '$lib/server/rules';
import {
	blankInput,
	choicesFor,
	findDraft,
	findSession,
	findSessions,
	inputFrom,
	placeOf,
	type SessionInput
} from '$lib/server/session';
import type { PageServerLoad } from './$types';

type Kept = { input: SessionInput; added: { id: string; name: string; number: string }[] };

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const { site } = await event.parent();
	const now = otium.now();
	const draftId = event.url.searchParams.get('draft');
	const fromId = event.url.searchParams.get('from');
	const draft = draftId ? await findDraft(otium.db, staff, draftId) : null;
	const from = fromId ? await findSession(otium.db, fromId) : null;
	const blank = blankInput(site.zone, now);
	const kept = draft?.input as Kept | undefined;
	const input =
		kept !== undefined
			? { ...blank, ...kept.input }
			: from && may(staff, 'prepare', placeOf(from))
				? await inputFrom(otium.db, from, now)
				: blank;
	const others = await findSessions(otium.db, (query) => query.orderBy('session.opens', 'desc').limit(60));
	return {
		choices: await choicesFor(otium.db, staff, await listSheets(otium.db)),
		input,
		draft: draft && kept ? { id: draft.id, revision: draft.revision, savedAt: draft.savedAt, added: kept.added } : null,
		/** The draft is somebody else's, or was planned already. */
		lostDraft: draftId !== null && draft === null,
		others: others
			.filter((session) => may(staff, 'prepare', placeOf(session)))
			.map((session) => ({ id: session.id, name: session.name, opens: session.window.opens, zone: session.site.zone })),
		key: draftId ?? fromId ?? 'blank'
	};
};
