import { sitesWith, type StaffMember, SUPERVISING } from '$core/access';
import { groupBy } from '$core/group-by';
import { dealtCount, dealtPoints, type Paper } from '$core/paper';
import { DEFAULT_RULES, type SessionRules } from '$core/session';
import { addDays, asEntered, asLocalWindow, daysBetween, MINUTE, type Window } from '$core/time';
import type { Query } from '../db';
import { listAdministrations, type AdministrationName } from '../places';
import { seatCount, type RoomRow } from './facts';
import type { SessionInput } from './input';
import type { Session } from '../records';

/** What a session can be made from, for the form. */
export type Choices = {
	papers: {
		id: string;
		title: string;
		version: number;
		/** Not offered any more: only shown where it is chosen already. */
		isWithdrawn: boolean;
		questions: number;
		points: number;
		/** Where it may be sat; neither site nor group: everywhere. */
		allowed: { administrationId: string; siteId: string | null; groupId: string | null }[];
	}[];
	groups: { id: string; name: string; siteId: string; site: string; count: number }[];
	rooms: { id: string; name: string; siteId: string; site: string; seats: number; zone: string }[];
	proctors: { id: string; name: string }[];
	networks: { id: string; name: string; siteId: string }[];
	sheets: { id: string; name: string; note: string; rules: SessionRules; shipped: boolean }[];
	administrations: AdministrationName[];
};

/** Only what the sites of this coordinator offer. */
export async function choicesFor(db: Query, staff: StaffMember, sheets: Choices['sheets']): Promise<Choices> {
	const sites = coordinatedSites(staff);
	const bySite = (query: ReturnType<Query['queryBuilder']>) => {
		if (sites !== null) query.whereIn('site.id', sites);
	};
	return {
		papers: await papersFor(db, sites),
		groups: await db('candidate_group')
			.join('site', 'site.id', 'candidate_group.site_id')
			.leftJoin('group_member', 'group_member.group_id', 'candidate_group.id')
			.leftJoin('candidate', (join) =>
				join.on('candidate.id', 'group_member.candidate_id').andOnNull('candidate.left_at')
			)
			.modify(bySite)
			.groupBy('candidate_group.id', 'candidate_group.name', 'site.name')
			.orderBy(['site.name', 'candidate_group.name'])
			.select('candidate_group.id', 'candidate_group.name', 'site.id as siteId', 'site.name as site')
			.count('candidate.id as count'),
		rooms: await roomsFor(db, bySite),
		proctors: await db('staff')
			.join('staff_role', 'staff_role.staff_id', 'staff.id')
			.whereIn('role', SUPERVISING)
			.where((any) => {
				if (sites !== null) any.whereNull('site_id').orWhereIn('site_id', sites);
			})
			.distinct('staff.id', 'staff.name')
			.orderBy('staff.name'),
		networks: await db('network')
			.join('site', 'site.id', 'network.site_id')
			.modify(bySite)
			.orderBy('network.name')
			.select('network.id', 'network.name', 'site.id as siteId'),
		sheets,
		administrations: await listAdministrations(db)
	};
}

/** The papers that may be sat at one of these sites, or by one of their groups. */
async function papersFor(db: Query, sites: string[] | null): Promise<Choices['papers']> {
	const papers: { id: string; title: string; version: number; content: string; withdrawn_at: number | null }[] =
		await db('paper').orderBy([{ column: 'title' }, { column: 'version', order: 'desc' }]);
	const allowed: {
		administration_id: string;
		paper_id: string;
		site_id: string | null;
		group_id: string | null;
		group_site: string | null;
	}[] = await db('paper_allowed')
		.leftJoin('candidate_group', 'candidate_group.id', 'paper_allowed.group_id')
		.select(
			'administration_id',
			'paper_id',
			'paper_allowed.site_id',
			'group_id',
			'candidate_group.site_id as group_site'
		);
	const byPaper = groupBy(allowed, ({ paper_id }) => paper_id);
	return papers.flatMap(({ id, title, version, content, withdrawn_at }) => {
		const here = (byPaper.get(id) ?? []).filter(
			({ site_id, group_id, group_site }) =>
				sites === null || (site_id === null && group_id === null) || sites.includes(site_id ?? group_site ?? '')
		);
		if (here.length === 0) return [];
		const paper: Paper = JSON.parse(content);
		return {
			id,
			title,
			version,
			isWithdrawn: withdrawn_at !== null,
			questions: dealtCount(paper),
			points: dealtPoints(paper),
			allowed: here.map(({ administration_id, site_id, group_id }) => ({
				administrationId: administration_id,
				siteId: site_id,
				groupId: group_id
			}))
		};
	});
}

async function roomsFor(
	db: Query,
	bySite: (query: ReturnType<Query['queryBuilder']>) => void
): Promise<Choices['rooms']> {
	const rows: (RoomRow & { site: string })[] = await db('room')
		.join('site', 'site.id', 'room.site_id')
		.modify(bySite)
		.orderBy(['site.name', 'room.name'])
		.select('room.*', 'site.name as site', 'site.zone');
	return rows.map((room) => ({
		id: room.id,
		name: room.name,
		siteId: room.site_id,
		site: room.site,
		zone: room.zone,
		seats: seatCount(room)
	}));
}

/** The sites that somebody coordinates; null: all. */
export function coordinatedSites(staff: StaffMember): string[] | null {
	return sitesWith(staff, 'prepare');
}

/** Whether somebody may plan in a room of this site. */
export function coordinatesSite(staff: StaffMember, siteId: string): boolean {
	return coordinatedSites(staff)?.includes(siteId) ?? true;
}

/** The form as it starts: the safe choices, on the next whole hour. */
export function blankInput(zone: string, now: number): SessionInput {
	const hour = 60 * MINUTE;
	const opens = Math.ceil((now + 30 * MINUTE) / hour) * hour;
	return {
		name: '',
		kind: 'live',
		paperId: '',
		groupIds: [],
		roomId: '',
		...whenOf({ opens, closes: opens + 75 * MINUTE }, zone),
		only: null,
		withoutIds: [],
		alsoIds: [],
		ruleSheetId: null,
		rules: DEFAULT_RULES,
		proctorIds: [],
		administrationId: null,
		parts: null
	};
}

/** A window in the form's fields. */
function whenOf(window: Window, zone: string): Pick<SessionInput, 'date' | 'time' | 'until' | 'untilDate'> {
	const { date, opens, closes, lastDate } = asLocalWindow(window, zone);
	return { date, time: opens, until: closes, untilDate: lastDate };
}

/** A session as the form shows it. */
export async function inputOf(db: Query, session: Session): Promise<SessionInput> {
	const groupIds: string[] = await db('session_group').where({ session_id: session.id }).pluck('group_id');
	const members = new Set<string>(await db('group_member').whereIn('group_id', groupIds).pluck('candidate_id'));
	const expected: string[] = await db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.where('roster.session_id', session.id)
		.pluck('sitting.candidate_id');
	const fromGroups = expected.filter((id) => members.has(id));
	const zone = session.site.zone;
	return {
		name: session.name,
		kind: session.kind,
		paperId: session.paper.id,
		groupIds,
		only: fromGroups.length < members.size ? fromGroups : null,
		withoutIds: [],
		alsoIds: expected.filter((id) => !members.has(id)),
		roomId: session.room.id,
		...whenOf(session.window, zone),
		ruleSheetId: session.ruleSheetId,
		rules: asEntered(session.rules),
		proctorIds: await db('session_proctor').where({ session_id: session.id }).pluck('staff_id'),
		administrationId: session.administrationId,
		parts: null
	};
}

/** Another session's setup for a new one: everything but its day, which is to be chosen anew, and its name. */
export async function inputFrom(db: Query, session: Session, now: number): Promise<SessionInput> {
	const input = await inputOf(db, session);
	const { date } = blankInput(session.site.zone, now);
	// As many days later as before: a window over several days keeps its length.
	const untilDate = input.untilDate && addDays(date, daysBetween(input.date, input.untilDate));
	return {
		...input,
		name: '',
		only: null,
		withoutIds: [],
		alsoIds: [],
		kind: input.kind,
		date,
		untilDate,
		administrationId: null
	};
}

/** The sites that somebody coordinates, by name. */
export async function sitesOf(db: Query, staff: StaffMember): Promise<{ id: string; name: string }[]> {
	const sites = coordinatedSites(staff);
	return db('site')
		.modify((query) => {
			if (sites !== null) query.whereIn('id', sites);
		})
		.orderBy('name', 'desc')
		.select('id', 'name');
}
