import type { Place } from '$core/access';
import { groupBy } from '$core/group-by';
import type { SeatPlan } from '$core/seating';
import { completeRules, type SessionKind, type SessionRules } from '$core/session';
import { MINUTE, reachesInto, type Window } from '$core/time';
import { openSecret, proctorsBeside, type Query } from '../db';

/** A session as the server works with it: its row, its place and its paper's name. */
export type Session = {
	id: string;
	name: string;
	kind: SessionKind;
	administrationId: string;
	window: Window;
	rules: SessionRules;
	room: { id: string; name: string; rows: number; seatsPerRow: number; plan: SeatPlan };
	ruleSheetId: string | null;
	site: { id: string; name: string; zone: string };
	paper: { id: string; title: string; version: number };
	doorCode: string | null;
	codeDiesAt: number | null;
	/** The key of a code that turns; null: it is fixed. */
	turningKey: string | null;
	codeHidden: boolean;
	roomStartedAt: number | null;
	/** When the proctor ended the paper, where that is the rule. */
	timeCalledAt: number | null;
	/** Work was allowed to begin before the opening, by an act of its own. */
	openedEarlyAt: number | null;
	entryClosedAt: number | null;
	endedAt: number | null;
	revision: number;
	proctorIds: string[];
};

type Row = Record<string, unknown>;

/** The sessions that a query narrows down to; all of them without one. Earliest first. */
export async function findSessions(
	db: Query,
	narrow: (query: ReturnType<Query['queryBuilder']>) => void
): Promise<Session[]> {
	const query = db('session')
		.join('room', 'room.id', 'session.room_id')
		.join('site', 'site.id', 'room.site_id')
		.join('paper', 'paper.id', 'session.paper_id')
		.leftJoin('session_proctor', 'session_proctor.session_id', 'session.id')
		.orderBy(['session.opens', 'room.name'])
		.select(
			'session.*',
			'room.name as room',
			'room.seat_rows',
			'room.seats_per_row',
			'room.plan',
			'site.id as site_id',
			'site.name as site',
			'site.zone',
			'paper.title',
			'paper.version',
			'session_proctor.staff_id as proctor_id',
			proctorsBeside(db)
		);
	narrow(query);
	// A row for each proctor: what every change in a room asks for is asked once.
	const rows = groupBy((await query) as Row[], (row) => row.id as string);
	return [...rows.values()].map((group) => {
		const named = group.flatMap((row) => (row.proctor_id as string | null) ?? []);
		const beside = JSON.parse(group[0].beside as string) as string[];
		return toSession(db, group[0], [...new Set([...named, ...beside])]);
	});
}

/** Narrows to sessions of which any may fall within 36 hours of an instant: those of a local day anywhere, and more. */
export function aroundTime(query: ReturnType<Query['queryBuilder']>, at: number): void {
	const around = 36 * 60 * MINUTE;
	query
		.where('session.opens', '<', at + around)
		.where((any) => any.where('session.opens', '>', at - around).orWhere('session.closes', '>', at - around));
}

/** Whether any of a session's window falls on a day of its site, `2026-12-08`. */
export function isOnDay({ window, site }: Pick<Session, 'window' | 'site'>, day: string): boolean {
	return reachesInto(window, day, site.zone);
}

export async function findSession(db: Query, id: string): Promise<Session | null> {
	const [session] = await findSessions(db, (query) => query.where('session.id', id));
	return session ?? null;
}

function toSession(db: Query, row: Row, proctorIds: string[]): Session {
	return {
		id: row.id as string,
		name: row.name as string,
		kind: row.kind as SessionKind,
		administrationId: row.administration_id as string,
		window: { opens: row.opens as number, closes: row.closes as number | null },
		rules: completeRules(JSON.parse(row.rules as string)),
		ruleSheetId: row.rule_sheet_id as string | null,
		room: {
			id: row.room_id as string,
			name: row.room as string,
			rows: row.seat_rows as number,
			seatsPerRow: row.seats_per_row as number,
			plan: JSON.parse(row.plan as string)
		},
		site: { id: row.site_id as string, name: row.site as string, zone: row.zone as string },
		paper: { id: row.paper_id as string, title: row.title as string, version: row.version as number },
		doorCode: row.door_code === null ? null : openSecret(db, row.door_code as string),
		codeDiesAt: row.code_dies_at as number | null,
		turningKey: row.turning_key === null ? null : openSecret(db, row.turning_key as string),
		codeHidden: Boolean(row.code_hidden),
		roomStartedAt: row.room_started_at as number | null,
		timeCalledAt: row.time_called_at as number | null,
		openedEarlyAt: row.opened_early_at as number | null,
		entryClosedAt: row.entry_closed_at as number | null,
		endedAt: row.ended_at as number | null,
		revision: row.revision as number,
		proctorIds
	};
}

/** Where acts on this session take effect, for `may`. */
export function placeOf(session: Session): Place {
	return { siteId: session.site.id, proctorIds: session.proctorIds };
}

/** When its door opens for everyone who has no window of their own. */
export function doorOpensAt(session: Pick<Session, 'window' | 'rules'>): number {
	return session.window.opens - session.rules.timing.doorOpensMinutes * 60_000;
}
