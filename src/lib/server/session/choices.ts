import type { StaffMember } from '$core/access';
import { dealtCount, dealtPoints, type Paper } from '$core/paper';
import { DEFAULT_RULES } from '$core/session';
import { localDate, localTime, MINUTE, type TimingRules } from '$core/time';
import type { Query } from '../db';
import type { SessionInput } from './plan';
import type { Session } from './session';

/** What a session can be made from, for the form. */
export type Choices = {
	papers: { id: string; title: string; version: number; questions: number; points: number }[];
	groups: { id: string; name: string; site: string; count: number }[];
	rooms: { id: string; name: string; site: string; seats: number; zone: string }[];
	proctors: { id: string; name: string }[];
};

/** Only what the sites of this coordinator offer. */
export async function choicesFor(db: Query, staff: StaffMember): Promise<Choices> {
	const sites = coordinatedSites(staff);
	const bySite = (query: ReturnType<Query['queryBuilder']>) => {
		if (sites !== null) query.whereIn('site.id', sites);
	};
	const papers: { id: string; title: string; version: number; content: string }[] = await db('paper').orderBy([
		{ column: 'title' },
		{ column: 'version', order: 'desc' }
	]);
	return {
		papers: papers.map(({ id, title, version, content }) => {
			const paper: Paper = JSON.parse(content);
			return { id, title, version, questions: dealtCount(paper), points: dealtPoints(paper) };
		}),
		groups: await db('candidate_group')
			.join('site', 'site.id', 'candidate_group.site_id')
			.leftJoin('candidate', 'candidate.group_id', 'candidate_group.id')
			.modify(bySite)
			.groupBy('candidate_group.id', 'candidate_group.name', 'site.name')
			.orderBy(['site.name', 'candidate_group.name'])
			.select('candidate_group.id', 'candidate_group.name', 'site.name as site')
			.count('candidate.id as count'),
		rooms: await roomsFor(db, bySite),
		proctors: await db('staff')
			.join('staff_role', 'staff_role.staff_id', 'staff.id')
			.whereIn('role', ['proctor', 'coordinator'])
			.distinct('staff.id', 'staff.name')
			.orderBy('staff.name')
	};
}

type RoomRow = { id: string; name: string; site: string; zone: string; seat_rows: number; seats_per_row: number };

async function roomsFor(
	db: Query,
	bySite: (query: ReturnType<Query['queryBuilder']>) => void
): Promise<Choices['rooms']> {
	const rows: RoomRow[] = await db('room')
		.join('site', 'site.id', 'room.site_id')
		.modify(bySite)
		.orderBy(['site.name', 'room.name'])
		.select('room.*', 'site.name as site', 'site.zone');
	return rows.map(({ id, name, site, zone, seat_rows, seats_per_row }) => ({
		id,
		name,
		site,
		zone,
		seats: seat_rows * seats_per_row
	}));
}

/** The sites that somebody coordinates; null: all. */
function coordinatedSites(staff: StaffMember): string[] | null {
	const held = staff.roles.filter((one) => one.role === 'coordinator');
	return held.some((one) => one.siteId === null) ? null : held.map((one) => one.siteId!);
}

/** Whether somebody may plan in a room of this site. */
export function coordinatesSite(staff: StaffMember, siteId: string): boolean {
	return coordinatedSites(staff)?.includes(siteId) ?? true;
}

/** The timing rules that the form shows, by the names of its fields. */
function timingFields(timing: TimingRules) {
	const { limitMinutes, doorOpensMinutes, lastEntryMinutes, graceMinutes, clockStarts, clockStops, atClose, atTimeUp } =
		timing;
	return { limitMinutes, doorOpensMinutes, lastEntryMinutes, graceMinutes, clockStarts, clockStops, atClose, atTimeUp };
}

/** The form as it starts: the safe choices, on the next whole hour. */
export function blankInput(zone: string, now: number): SessionInput {
	const hour = 60 * MINUTE;
	const opens = Math.ceil((now + 30 * MINUTE) / hour) * hour;
	const { timing, order, ...rules } = DEFAULT_RULES;
	return {
		name: '',
		kind: 'live',
		paperId: '',
		groupIds: [],
		roomId: '',
		date: localDate(opens, zone),
		time: localTime(opens, zone),
		until: localTime(opens + 75 * MINUTE, zone),
		...timingFields(timing),
		admission: rules.admission,
		startWord: null,
		finishWord: null,
		shown: rules.shown,
		...order,
		proctorIds: []
	};
}

/** A session as the form shows it. */
export async function inputOf(db: Query, session: Session): Promise<SessionInput> {
	const groups: { group_id: string }[] = await db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where('roster.session_id', session.id)
		.distinct('candidate.group_id');
	const { timing, order, ...rules } = session.rules;
	const zone = session.site.zone;
	return {
		name: session.name,
		kind: session.kind,
		paperId: session.paper.id,
		groupIds: groups.map((row) => row.group_id),
		roomId: session.room.id,
		date: localDate(session.window.opens, zone),
		time: localTime(session.window.opens, zone),
		until: session.window.closes === null ? null : localTime(session.window.closes, zone),
		...timingFields(timing),
		admission: rules.admission,
		startWord: rules.startWord,
		finishWord: rules.finishWord,
		shown: rules.shown,
		...order,
		proctorIds: session.proctorIds
	};
}
