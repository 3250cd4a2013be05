import { groupBy } from '$core/group-by';
import { type Paper, summarise } from '$core/paper';
import { type SeatPlan, usableSeats } from '$core/seating';
import type { SessionFacts, SessionRules } from '$core/session';
import type { Sitting } from '$core/sitting';
import { workLastsUntil, type Window } from '$core/time';
import type { Query } from '../db';
import { giveWay } from '../event-loop';
import { candidateClashes, freeRooms, proctorClashes, sessionsAt } from './clashes';
import { standingOf, stepsOf } from '../steps';
import { owingOf } from './owing';
import { sittingsLeft } from './entitlement';
import type { SessionInput } from './input';
import type { Roster } from './roster';
import { extraTimeOf, timeNeeds } from './time-needs';

export type RoomRow = {
	id: string;
	name: string;
	site_id: string;
	seat_rows: number;
	seats_per_row: number;
	plan: string;
	zone: string;
	opens_daily: string | null;
	closes_daily: string | null;
};

export type PaperRow = {
	id: string;
	title: string;
	version: number;
	content: string;
	withdrawn_at: number | null;
	withdrawn_why: string | null;
};

/** What the facts are gathered for. */
export type Place = {
	administrationId: string;
	input: SessionInput;
	rules: SessionRules;
	window: Window;
	room: RoomRow;
	paper: PaperRow;
	/** The paper's content, read. */
	content: Paper;
	roster: Roster;
	/** The session that is being edited; it is not in its own way. */
	editing?: string;
};

export function seatCount(room: Pick<RoomRow, 'seat_rows' | 'seats_per_row' | 'plan'>): number {
	return usableSeats(room.seat_rows, room.seats_per_row, JSON.parse(room.plan) as SeatPlan).length;
}

/** Gathers all that a session's sentence and findings are made of. Reads only, and gives way in between. */
export async function gatherFacts(db: Query, place: Place, now: number): Promise<SessionFacts> {
	const { input, rules, window, room, paper, content, roster } = place;
	const needs = await timeNeeds(db, place, now);
	await giveWay();
	const busyUntil = workLastsUntil(
		rules.timing,
		window,
		needs.map((need) => need.ends)
	);
	const taken = await sessionsAt(db, place, busyUntil, now);
	const networks: { id: string; name: string }[] = await db('network')
		.where({ site_id: room.site_id })
		.select('id', 'name');
	const summary = summarise(content);
	const clashes = {
		room: taken.find((one) => one.room_id === room.id)?.name ?? null,
		candidates: await candidateClashes(db, place, needs),
		proctors: await proctorClashes(db, place, taken)
	};
	await giveWay();
	const going = { goingOn: await goingOn(db, place), withoutClient: await withoutClient(db, place) };
	await giveWay();
	return {
		kind: input.kind,
		paper: {
			title: paper.title,
			version: paper.version,
			newer: await newerVersion(db, place),
			...summary,
			isForPractice: content.practice !== undefined,
			allowed: await isAllowed(db, place),
			withdrawn:
				paper.withdrawn_at === null ? null : { why: paper.withdrawn_why ?? '', isChosen: Boolean(place.editing) }
		},
		groups: roster.groups,
		candidates: roster.people.length,
		elsewhere: roster.people.filter((person) => person.elsewhere).length,
		languages: byLanguage(roster),
		room: { id: room.id, name: room.name, seats: seatCount(room) },
		otherRooms: await freeRooms(db, place, taken),
		clashes,
		proctors: input.proctorIds.length,
		zone: room.zone,
		hours: room.opens_daily && room.closes_daily ? { opens: room.opens_daily, closes: room.closes_daily } : null,
		days: await administrationDays(db, place.administrationId),
		window,
		busyUntil,
		rules,
		limitBeside: rules.timing.questionSeconds === null ? null : input.rules.timing.limitMinutes,
		extraTime: extraTimeOf(needs),
		networks: {
			named: networks.filter((one) => rules.door.networks.includes(one.id)),
			lost: rules.door.networks.filter((id) => !networks.some((one) => one.id === id)).length,
			known: networks
		},
		siteHasClients: Boolean(
			await db('client_device').where({ site_id: room.site_id }).whereNull('withdrawn_at').first('id')
		),
		entitlement: await entitlementOf(db, place),
		mayAllot: await mayAllot(db),
		othersPending: await othersPending(db, place),
		owing: input.kind === 'rehearsal' ? await owingOf(db, place.administrationId, paper.id, now) : 0,
		forPractice: input.kind === 'rehearsal' ? await forPractice(db, place, now) : [],
		trials: roster.people.filter(({ trial }) => trial).map(({ candidateId, name }) => ({ id: candidateId, name })),
		notOpen: await notOpen(db, place),
		...going,
		withoutIdentity: roster.people
			.filter((person) => person.birth === null)
			.map((person) => ({ id: person.candidateId, name: person.name })),
		withoutEmail: roster.people.filter((person) => person.email === null).length
	};
}

async function administrationDays(db: Query, id: string): Promise<SessionFacts['days']> {
	const row = await db('administration').where({ id }).first('opens_on', 'closes_on');
	return row?.opens_on && row.closes_on ? { first: row.opens_on, last: row.closes_on } : null;
}

/** Whether the paper may be sat at this site, or by all of these groups. */
async function isAllowed(db: Query, { administrationId, paper, room, input }: Place): Promise<boolean> {
	const rows: { site_id: string | null; group_id: string | null }[] = await db('paper_allowed').where({
		administration_id: administrationId,
		paper_id: paper.id
	});
	if (rows.some((row) => row.group_id === null && (row.site_id === null || row.site_id === room.site_id))) return true;
	const groups = new Set(rows.map((row) => row.group_id));
	return input.groupIds.length > 0 && input.groupIds.every((id) => groups.has(id));
}

/** For whom the paper is closed by the order of the parts, as things stand. */
async function notOpen(db: Query, { administrationId, paper, roster, input }: Place): Promise<SessionFacts['notOpen']> {
	if (input.kind === 'rehearsal') return [];
	const steps = await stepsOf(db, administrationId);
	const step = steps.find((one) => one.paperTitle === paper.title);
	if (!step || step.afterId === null) return [];
	const ids = roster.people.map((person) => person.candidateId);
	const standing = await standingOf(db, administrationId, steps, ids);
	return roster.people.flatMap(({ candidateId, name }) => {
		const one = standing.get(candidateId)!.get(step.id)!.standing;
		return one.open ? [] : [{ person: { id: candidateId, name }, why: one.why }];
	});
}

/** Who has begun elsewhere and would go on here, with the limit under which they began. */
async function goingOn(db: Query, { roster, editing }: Place): Promise<SessionFacts['goingOn']> {
	const names = new Map(roster.people.map((person) => [person.sittingId, person]));
	const rows: { id: string; fold: string; rules: string }[] = await db('sitting')
		.join('session', 'session.id', 'sitting.session_id')
		.whereIn('sitting.id', [...names.keys()].filter((id) => id !== null) as string[])
		.where('sitting.state', 'carried_over')
		.whereNot('session.id', editing ?? '')
		.select('sitting.id', 'sitting.fold', 'session.rules');
	return rows
		.filter(({ fold }) => (JSON.parse(fold) as Sitting).beganAt !== null)
		.map(({ id, rules }) => {
			const { candidateId, name } = names.get(id)!;
			return {
				person: { id: candidateId, name },
				limitMinutes: (JSON.parse(rules) as SessionRules).timing.limitMinutes
			};
		});
}

function byLanguage({ people }: Roster): SessionFacts['languages'] {
	const byTag = groupBy(people, ({ language }) => language);
	return [...byTag].map(([tag, spoken]) => ({ tag, ids: spoken.map(({ candidateId }) => candidateId) }));
}

/** Sittings allotted to the site less those planned or sat there already. A rehearsal uses none. */
async function entitlementOf(
	db: Query,
	{ administrationId, room, roster, input }: Place
): Promise<SessionFacts['entitlement']> {
	if (input.kind === 'rehearsal') return null;
	const mine = roster.people.map((person) => person.sittingId).filter((id) => id !== null);
	const left = await sittingsLeft(db, administrationId, room.site_id, mine);
	return left === null ? null : { left, needed: roster.people.length };
}

const MOST_NAMED = 3;

/** Who may change what all sites share. */
function mayAllot(db: Query): Promise<string[]> {
	return db('staff')
		.join('staff_role', 'staff_role.staff_id', 'staff.id')
		.where({ role: 'coordinator', site_id: null })
		.orderBy('staff.name')
		.limit(MOST_NAMED)
		.distinct()
		.pluck('staff.name');
}

async function othersPending(db: Query, { paper, administrationId, editing }: Place): Promise<number> {
	const row = await db('session')
		.where({ paper_id: paper.id, administration_id: administrationId })
		.whereNot('kind', 'rehearsal')
		.whereNot('id', editing ?? '')
		.whereNull('ended_at')
		.count('* as n')
		.first();
	return Number(row?.n ?? 0);
}

/** The latest version of the paper after this one, where it may be sat as well. */
async function newerVersion(db: Query, place: Place): Promise<SessionFacts['paper']['newer']> {
	const { title, version } = place.paper;
	const latest: PaperRow | undefined = await db('paper')
		.where({ title, withdrawn_at: null })
		.where('version', '>', version)
		.orderBy('version', 'desc')
		.first();
	if (!latest || !(await isAllowed(db, { ...place, paper: latest }))) return null;
	return { id: latest.id, version: latest.version };
}

const MOST_FOR_PRACTICE = 3;

/** Papers of the administration that nobody owes and that no session is planned with. */
async function forPractice(db: Query, place: Place, now: number): Promise<SessionFacts['forPractice']> {
	const { administrationId } = place;
	const papers: PaperRow[] = await db('paper')
		.whereIn('id', db('paper_allowed').where({ administration_id: administrationId }).select('paper_id'))
		.where({ withdrawn_at: null })
		.whereNot({ id: place.paper.id })
		.orderBy(['title', 'version']);
	const free: SessionFacts['forPractice'] = [];
	for (const paper of papers) {
		if (free.length === MOST_FOR_PRACTICE) break;
		const isFree =
			(await isAllowed(db, { ...place, paper })) &&
			(await othersPending(db, { ...place, paper })) === 0 &&
			(await owingOf(db, administrationId, paper.id, now)) === 0;
		if (isFree) free.push({ id: paper.id, title: paper.title });
	}
	return free;
}

/** Candidates whose last check of their device found no sealed client. */
async function withoutClient(db: Query, { roster }: Place): Promise<number> {
	const rows: { candidate_id: string; client_version: string | null }[] = await db('device_check')
		.whereIn(
			'candidate_id',
			roster.people.map((person) => person.candidateId)
		)
		.orderBy('at')
		.select('candidate_id', 'client_version');
	const last = new Map(rows.map((row) => [row.candidate_id, row.client_version]));
	return [...last.values()].filter((version) => version === null).length;
}
