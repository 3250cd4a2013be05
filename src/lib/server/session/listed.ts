import type { StaffMember } from '$core/access';
import type { SessionKind } from '$core/session';
import { localDay } from '$core/time';
import { whereEveryWord, type Query } from '../db';
import { findSessions, type Session } from '../records';
import { coordinatedSites } from './choices';

/** By the day on which a session opens, on the calendar of its site; one that goes on over days is today's until it has ended. */
export const LIST_PARTS = ['today', 'later', 'past'] as const;
export type ListPart = (typeof LIST_PARTS)[number];
export const SESSIONS_ON_PAGE = 50;

export type ListAsked = { part: ListPart; text: string; siteId: string | null; kind: SessionKind | null; page: number };
export type SessionList = {
	sessions: (Session & { expected: number })[];
	/** The page that was asked for, or the last that there is. */
	page: number;
	/** How many match, on all pages. */
	total: number;
	/** How many there are of each part, whatever was asked for. */
	counts: Record<ListPart, number>;
};

/** A page of the sessions that somebody prepares: the soonest first, and of past ones the latest. */
export async function listSessions(db: Query, staff: StaffMember, asked: ListAsked, now: number): Promise<SessionList> {
	const sites = coordinatedSites(staff);
	const zones: string[] = await db('site').distinct().pluck('zone');
	const of = (part: ListPart) => {
		const query = db('session').join('room', 'room.id', 'session.room_id').join('site', 'site.id', 'room.site_id');
		if (sites !== null) query.whereIn('site.id', sites);
		return query.where((any) => {
			for (const zone of zones) {
				const { from, until } = localDay(now, zone);
				any.orWhere((here) => {
					here.where('site.zone', zone);
					if (part === 'later') here.where('opens', '>=', until);
					else here.where('opens', '<', part === 'today' ? until : from);
					if (part === 'today')
						here.where((one) =>
							one.where('opens', '>=', from).orWhere((on) => on.whereNull('ended_at').where('closes', '>', from))
						);
					if (part === 'past')
						here.where((one) => one.whereNotNull('ended_at').orWhereNull('closes').orWhere('closes', '<=', from));
				});
			}
		});
	};
	const matching = () => {
		const query = of(asked.part);
		if (asked.siteId !== null) query.where('site.id', asked.siteId);
		if (asked.kind !== null) query.where('session.kind', asked.kind);
		whereEveryWord(query, asked.text, ['session.name', 'room.name', 'site.name']);
		return query;
	};
	const total = await countOf(matching());
	const page = Math.min(asked.page, Math.max(0, Math.ceil(total / SESSIONS_ON_PAGE) - 1));
	const direction = asked.part === 'past' ? 'desc' : 'asc';
	const ids: string[] = await matching()
		.orderBy([{ column: 'opens', order: direction }, 'room.name', 'session.id'])
		.limit(SESSIONS_ON_PAGE)
		.offset(page * SESSIONS_ON_PAGE)
		.pluck('session.id');
	const rows: { session_id: string; count: number }[] = await db('roster')
		.whereIn('session_id', ids)
		.groupBy('session_id')
		.select('session_id')
		.count('* as count');
	const expected = new Map(rows.map((row) => [row.session_id, row.count]));
	const found = await findSessions(db, (query) => query.whereIn('session.id', ids));
	const byId = new Map(found.map((session) => [session.id, session]));
	const counts = await Promise.all(LIST_PARTS.map(async (part) => [part, await countOf(of(part))] as const));
	return {
		sessions: ids.map((id) => ({ ...byId.get(id)!, expected: expected.get(id) ?? 0 })),
		page,
		total,
		counts: Object.fromEntries(counts) as Record<ListPart, number>
	};
}

async function countOf(query: ReturnType<Query['queryBuilder']>): Promise<number> {
	const [{ n }] = (await query.count('* as n')) as { n: number }[];
	return n;
}
