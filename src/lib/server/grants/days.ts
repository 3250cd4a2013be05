import type { Days, ProctorDay, RoomDay, Span } from '$core/grants';
import { groupBy } from '$core/group-by';
import type { SessionRules } from '$core/session';
import { IN_THE_ROOM, UNFINISHED } from '$core/sitting';
import { allottedMinutes, instantFromLocal, lastsUntil, localMidnightAfter, MINUTE } from '$core/time';
import type { Query } from '../db';
import { owingOf, seatCount } from '../session';
import type { Loaded } from '../sitting';

/** Sessions and own windows that take a room or somebody's time. */
type Held = RoomDay['held'][number] & { roomId: string; sessionId: string; candidateId: string | null };

/** A site's rooms and proctors over some days: the part of `Days` that is the same for everybody there. */
export type SiteDays = {
	rooms: RoomDay[];
	proctors: ProctorDay[];
	held: Held[];
	hours: Days['hours'];
	zone: string;
};

const DAY_MS = 24 * 60 * MINUTE;

/** Reads who has which room and who supervises where, between two instants. */
export async function siteDays(db: Query, siteId: string, within: Span): Promise<SiteDays> {
	const site = await db('site').where({ id: siteId }).first('zone', 'opens_daily', 'closes_daily');
	const rooms: { id: string; name: string; seat_rows: number; seats_per_row: number; plan: string }[] = await db('room')
		.where({ site_id: siteId })
		.orderBy('name');
	const held = [...(await sessionsIn(db, siteId, within)), ...(await ownWindowsIn(db, siteId, within))];
	const byRoom = groupBy(held, (one) => one.roomId);
	const staff: { id: string; name: string }[] = await db('staff')
		.join('staff_role', 'staff_role.staff_id', 'staff.id')
		.whereIn('role', ['proctor', 'site_proctor'])
		.where((any) => any.whereNull('site_id').orWhere({ site_id: siteId }))
		.distinct('staff.id', 'staff.name')
		.orderBy('staff.name');
	return {
		rooms: rooms.map((room) => ({
			id: room.id,
			name: room.name,
			seats: seatCount(room),
			held: byRoom.get(room.id) ?? []
		})),
		proctors: staff.map(({ id, name }) => ({
			id,
			name,
			busy: held.filter((one) => one.proctorIds.includes(id)).map(({ from, to, roomId }) => ({ from, to, roomId }))
		})),
		held,
		hours: site.opens_daily && site.closes_daily ? { opens: site.opens_daily, closes: site.closes_daily } : null,
		zone: site.zone
	};
}

/** Sessions that are not over, with how many sit in their room: whoever has a window of their own is counted there. */
async function sessionsIn(db: Query, siteId: string, within: Span): Promise<Held[]> {
	const rows: { id: string; name: string; room_id: string; opens: number; closes: number | null; rules: string }[] =
		await db('session')
			.join('room', 'room.id', 'session.room_id')
			.where({ 'room.site_id': siteId, ended_at: null })
			.where('opens', '<', within.to)
			.where('opens', '>', within.from - 7 * DAY_MS)
			.select('session.id', 'session.name', 'room_id', 'opens', 'closes', 'rules');
	const ids = rows.map((row) => row.id);
	const people: { session_id: string; n: number }[] = await db('sitting')
		.whereIn('session_id', ids)
		.whereIn('state', [...UNFINISHED])
		.whereNotIn(
			'candidate_id',
			db('grant_given')
				.where({ kind: 'own_window', withdrawn_at: null, scope_id: db.ref('sitting.session_id') })
				.whereNotNull('candidate_id')
				.select('candidate_id')
		)
		.groupBy('session_id')
		.select('session_id')
		.count('* as n');
	const counted = new Map(people.map((row) => [row.session_id, Number(row.n)]));
	// Whoever may finish after the close has their room and their proctor until then.
	const lasts: { session_id: string; until: number | null }[] = await db('sitting')
		.whereIn('session_id', ids)
		.whereIn('state', IN_THE_ROOM)
		.groupBy('session_id')
		.select('session_id')
		.max('deadline as until');
	const workUntil = new Map(lasts.map((row) => [row.session_id, row.until ?? 0]));
	const proctors: { session_id: string; staff_id: string }[] = await db('session_proctor').whereIn('session_id', ids);
	const bySession = groupBy(proctors, (row) => row.session_id);
	return rows
		.map((row) => ({
			sessionId: row.id,
			candidateId: null,
			roomId: row.room_id,
			title: row.name,
			from: row.opens,
			to: Math.max(lastsUntil((JSON.parse(row.rules) as SessionRules).timing, row), workUntil.get(row.id) ?? 0),
			people: counted.get(row.id) ?? 0,
			proctorIds: (bySession.get(row.id) ?? []).map((one) => one.staff_id)
		}))
		.filter((one) => one.to > within.from);
}

async function ownWindowsIn(db: Query, siteId: string, within: Span): Promise<Held[]> {
	const rows: Windowed[] = await db('grant_given')
		.join('session', 'session.id', 'grant_given.scope_id')
		.join('room', 'room.id', 'session.room_id')
		.where({ 'grant_given.kind': 'own_window', withdrawn_at: null, 'room.site_id': siteId })
		.where('grant_given.opens', '<', within.to)
		.where('grant_given.closes', '>', within.from)
		.select(
			'grant_given.opens',
			'grant_given.closes',
			'grant_given.room_id',
			'session.room_id as session_room',
			'candidate_id',
			'proctor_id',
			'scope_id'
		);
	return rows.map((row) => ({
		sessionId: row.scope_id,
		candidateId: row.candidate_id,
		roomId: row.room_id ?? row.session_room,
		title: 'somebody in a window of their own',
		from: row.opens,
		to: row.closes,
		people: 1,
		proctorIds: row.proctor_id ? [row.proctor_id] : []
	}));
}

type Windowed = {
	opens: number;
	closes: number;
	room_id: string | null;
	session_room: string;
	candidate_id: string;
	proctor_id: string | null;
	scope_id: string;
};

/** What one candidate's days are like, for one sitting of theirs: themselves not counted. */
export async function daysOf(db: Query, one: Loaded, site: SiteDays, within: Span, now: number): Promise<Days> {
	const { session, sitting, candidate, merge, reckoning } = one;
	const { timing } = session.rules;
	const minutes = allottedMinutes(timing, merge.grants);
	// Whoever may finish after the close has their proctor with them until then, however long their clock stood.
	const isAtWork = sitting.beganAt !== null && session.endedAt === null;
	const planned = minutes === null ? 0 : session.window.opens + (minutes + (timing.lastEntryMinutes ?? 0)) * MINUTE;
	// What is left of their time is told in whole minutes.
	const rest = isAtWork && reckoning.naturalDeadline !== null ? reckoning.naturalDeadline + MINUTE : 0;
	const stays = timing.atClose === 'finish' ? Math.max(planned, rest) : 0;
	const isCounted = merge.ownWindow === null;
	const rooms = site.rooms.map((room) => ({
		...room,
		held: (room.held as Held[])
			.filter((held) => held.candidateId !== candidate.id || held.sessionId !== session.id)
			.map((held) =>
				held.sessionId === session.id && held.candidateId === null
					? { ...held, people: held.people - (isCounted ? 1 : 0), to: Math.max(held.to, stays) }
					: held
			)
	}));
	return {
		now,
		zone: site.zone,
		common: session.window,
		commitments: await commitmentsOf(db, one, within),
		hours: site.hours,
		rooms,
		proctors: site.proctors,
		roomId: session.room.id,
		endsAt: await administrationEnd(db, session.administrationId, site.zone),
		answersShownAt: await answersShown(db, one, now)
	};
}

/** Their timetable, and the other sessions that expect them. */
async function commitmentsOf(db: Query, { candidate, sitting }: Loaded, within: Span): Promise<Days['commitments']> {
	const classes: { from_at: number; to_at: number; title: string }[] = await db('commitment')
		.where({ candidate_id: candidate.id })
		.where('from_at', '<', within.to)
		.where('to_at', '>', within.from)
		.select('from_at', 'to_at', 'title');
	const others: { name: string; opens: number; closes: number | null; rules: string }[] = await db('sitting')
		.join('session', 'session.id', 'sitting.session_id')
		.where({ candidate_id: candidate.id, ended_at: null })
		.whereNot('sitting.id', sitting.id)
		.whereIn('sitting.state', [...UNFINISHED])
		.where('session.opens', '<', within.to)
		.where('session.opens', '>', within.from - DAY_MS)
		.select('session.name', 'opens', 'closes', 'rules');
	return [
		...classes.map(({ from_at, to_at, title }) => ({ from: from_at, to: to_at, title })),
		...others.map((row) => ({
			from: row.opens,
			to: lastsUntil((JSON.parse(row.rules) as SessionRules).timing, row),
			title: row.name
		}))
	].sort((a, b) => a.from - b.from);
}

async function administrationEnd(db: Query, id: string, zone: string): Promise<number | null> {
	const row = await db('administration').where({ id }).first('closes_on');
	if (!row?.closes_on) return null;
	const noon = instantFromLocal(row.closes_on, '12:00', zone);
	return noon.ok ? localMidnightAfter(noon.at, zone) : null;
}

/** Since when others see the right answers; null: they don't, because somebody can still sit the paper. */
async function answersShown(db: Query, { session, paperId }: Loaded, now: number): Promise<number | null> {
	if (session.rules.review.shows !== 'key') return null;
	return (await owingOf(db, session.administrationId, paperId, now)) === 0 ? now : null;
}
