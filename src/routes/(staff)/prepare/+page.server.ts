import { z } from 'zod';
import { KIND_NAMES } from '$core/session';
import { requireStaff } from '$lib/server/http';
import type { Query } from '$lib/server/db';
import {
	doorOpensAt,
	findSession,
	LIST_PARTS,
	listDrafts,
	listSessions,
	SESSIONS_ON_PAGE,
	sitesOf
} from '$lib/server/session';
import type { PageServerLoad } from './$types';

const kinds = Object.keys(KIND_NAMES) as (keyof typeof KIND_NAMES)[];
/** What the list is narrowed to stands in the address; what can't be read there narrows nothing. */
const Asked = z.object({
	part: z.enum(LIST_PARTS).catch('today'),
	text: z.string().trim().max(100).catch(''),
	siteId: z.string().min(1).nullable().catch(null),
	kind: z.enum(kinds).nullable().catch(null),
	page: z.coerce.number().int().min(0).catch(0)
});

/** The session that somebody has planned last, and where it landed: it may be on another day than the one that is shown. */
async function lastPlannedBy(db: Query, staffId: string) {
	const row: { session_id: string } | undefined = await db('logbook')
		.where({ kind: 'session_planned', actor_id: staffId })
		.orderBy('seq', 'desc')
		.first('session_id');
	const session = row ? await findSession(db, row.session_id) : null;
	return (
		session && {
			id: session.id,
			name: session.name,
			opens: session.window.opens,
			zone: session.site.zone,
			slips: session.rules.door.slips
		}
	);
}

export const load: PageServerLoad = async (event) => {
	const staff = requireStaff(event, 'prepare');
	const { otium } = event.locals;
	const now = otium.now();
	const get = (name: string) => event.url.searchParams.get(name);
	const asked = Asked.parse({
		part: get('part'),
		text: get('text'),
		siteId: get('site'),
		kind: get('kind'),
		page: get('page')
	});
	const { sessions, page, total, counts } = await listSessions(otium.db, staff, asked, now);
	return {
		asked: { ...asked, page },
		counts,
		total,
		pageSize: SESSIONS_ON_PAGE,
		sites: await sitesOf(otium.db, staff),
		drafts: await listDrafts(otium.db, staff),
		planned: Math.max(0, Number(get('planned')) || 0),
		landed: get('planned') === '1' ? await lastPlannedBy(otium.db, staff.id) : null,
		calledOff: get('off') === null ? null : { draftId: get('off')!, told: Math.max(0, Number(get('told')) || 0) },
		sessions: sessions.map((session) => ({
			id: session.id,
			name: session.name,
			kind: session.kind,
			room: session.room.name,
			site: session.site.name,
			opens: session.window.opens,
			zone: session.site.zone,
			expected: session.expected,
			hasProctor: session.proctorIds.length > 0,
			stage:
				session.endedAt !== null
					? 'ended'
					: now >= session.window.opens
						? 'running'
						: now >= doorOpensAt(session)
							? 'door open'
							: 'planned'
		}))
	};
};
