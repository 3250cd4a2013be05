import { z } from 'zod';
import { KIND_NAMES } from '$core/session';
import { requireStaff } from '$lib/server/http';
import { doorOpensAt, LIST_PARTS, listDrafts, listSessions, SESSIONS_ON_PAGE, sitesOf } from '$lib/server/session';
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
