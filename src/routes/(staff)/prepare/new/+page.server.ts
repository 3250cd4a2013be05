import { requireStaff } from '$lib/server/http';
import { may, type StaffMember } from '$core/access';
import { missingForSession } from '$core/setting-up';
import { houseFacts } from '$lib/server/setting-up';
import type { Query } from '$lib/server/db';
import { listSheets } from '$lib/server/rules';
import {
	blankInput,
	choicesFor,
	coordinatedSites,
	copiedFrom,
	findDraft,
	findSession,
	findSessions,
	inputFrom,
	placeOf,
	type Session,
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
	const mayCopy = from !== null && may(staff, 'prepare', placeOf(from));
	const sheets = await listSheets(otium.db);
	const input =
		kept !== undefined ? { ...blank, ...kept.input } : mayCopy ? await inputFrom(otium.db, from, now) : blank;
	const others = await sessionsToCopy(otium.db, staff);
	return {
		choices: await choicesFor(otium.db, staff, sheets),
		input,
		copied: mayCopy && kept === undefined ? await copiedFrom(otium.db, from, sheets) : null,
		draft: draft && kept ? { id: draft.id, revision: draft.revision, savedAt: draft.savedAt, added: kept.added } : null,
		/** The draft is somebody else's, or was planned already. */
		lostDraft: draftId !== null && draft === null,
		missing: missingForSession(await houseFacts(otium.db, event.url)),
		others: others.map((session) => ({
			id: session.id,
			name: session.name,
			opens: session.window.opens,
			zone: session.site.zone
		})),
		key: draftId ?? fromId ?? 'blank'
	};
};

const MOST_TO_COPY = 60;

/** The latest sessions of the sites where this person may prepare: a busy site does not crowd out a small one. */
async function sessionsToCopy(db: Query, staff: StaffMember): Promise<Session[]> {
	const sites = coordinatedSites(staff);
	const ids: string[] = await db('session')
		.join('room', 'room.id', 'session.room_id')
		.modify((query) => {
			if (sites !== null) query.whereIn('room.site_id', sites);
		})
		.orderBy('session.opens', 'desc')
		.limit(MOST_TO_COPY)
		.pluck('session.id');
	const sessions = await findSessions(db, (query) => query.whereIn('session.id', ids));
	return sessions.sort((a, b) => b.window.opens - a.window.opens);
}
