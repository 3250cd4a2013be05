import { may, type StaffMember } from '$core/access';
import { fullName } from '$core/names';
import { tallyOf, type SeatView, type TallyKey } from '$core/room';
import { usableSeats } from '$core/seating';
import type { ReadyLine, SentencePart } from '$core/session';
import type { SittingState } from '$core/sitting';
import { isOverDays, localDate, localMidnightAfter, MINUTE } from '$core/time';
import { readinessOf } from '../readiness';
import type { Query } from '../db';
import { aroundTime, doorOpensAt, findSessions, isOnDay, placeOf, type Session } from '../session';
import { loadSittings, loadSittingsOf, type Loaded } from '../sitting';

/** A session as a bar on the day's ribbon. */
export type Bar = {
	id: string;
	title: string;
	kind: Session['kind'];
	door: number;
	opens: number;
	/** When those without grants are done. */
	ends: number;
	/** When the last is done. */
	lastEnds: number;
	stage: 'planned' | 'door' | 'running' | 'ended';
	line: string;
	needsProctor: boolean;
};
export type Lane = { room: string; site: string; seats: number; proctors: string; bars: Bar[] };

export type Today = {
	lanes: Lane[];
	from: number;
	to: number;
	zone: string;
	tally: Record<TallyKey, number>;
	expected: number;
	next: {
		id: string;
		title: string;
		room: string;
		opens: number;
		door: number;
		sentence: SentencePart[];
		ready: ReadyLine[];
	} | null;
	/** Sessions that nobody ended, and that ended by themselves in the last days. */
	endedByItself: { id: string; title: string; room: string; at: number }[];
	carried: {
		name: string;
		paper: string;
		answered: number;
		minutesLeft: number | null;
		joins: { room: string; opens: number; zone: string } | null;
	}[];
};

/** The day of whoever asks: the sessions they may see, whose local date is today's. */
export async function drawToday(
	db: Query,
	staff: StaffMember,
	administrationZone: string,
	now: number
): Promise<Today> {
	const day = localDate(now, administrationZone);
	const around = await findSessions(db, (query) => aroundTime(query, now));
	const mine = around.filter((session) => may(staff, 'see_session', placeOf(session)));
	const sessions = mine.filter((session) => isOnDay(session, day));
	const sittings = await sittingsOf(db, sessions, now);
	const names = await proctorNames(db, sessions);
	const outcomes = await outcomesOf(db, sessions);

	const bars = sessions.map((session) => ({
		session,
		bar: onItsDay(barOf(session, sittings.get(session.id) ?? [], outcomes.get(session.id) ?? [], now), session, now)
	}));
	const rooms = [...new Set(bars.map(({ session }) => session.room.id))];
	const lanes = rooms.map((id): Lane => {
		const here = bars.filter(({ session }) => session.room.id === id);
		const { room, site } = here[0].session;
		const proctors = [...new Set(here.flatMap(({ session }) => session.proctorIds.map((one) => names.get(one) ?? '')))];
		return {
			room: room.name,
			site: site.name,
			seats: usableSeats(room.rows, room.seatsPerRow, room.plan).length,
			proctors: proctors.length > 1 ? `${proctors[0]} +${proctors.length - 1}` : (proctors[0] ?? 'nobody yet'),
			bars: here.map(({ bar }) => bar)
		};
	});
	const all = [...sittings.values()].flat();
	const edges = bars.flatMap(({ bar }) => [bar.door, bar.lastEnds]);
	const hour = 60 * MINUTE;
	const next = sessions.find((session) => session.endedAt === null && session.window.opens > now);
	return {
		lanes: lanes.sort((a, b) => a.bars[0].opens - b.bars[0].opens),
		from: Math.floor(Math.min(now, ...edges) / hour) * hour,
		to: Math.ceil(Math.max(now + hour, ...edges) / hour) * hour,
		zone: administrationZone,
		tally: tallyOf(all.map((one) => ({ state: one.sitting.state, line: one.sitting.line }) as SeatView)),
		expected: all.length,
		next: next ? await tellNext(db, next, now) : null,
		endedByItself: await endedByItself(db, staff, now),
		carried: await carriedOver(db, staff, now)
	};
}

/** For so long it is told that a session ended by itself. */
const TOLD_MS = 2 * 24 * 60 * MINUTE;

async function endedByItself(db: Query, staff: StaffMember, now: number): Promise<Today['endedByItself']> {
	const ids: string[] = await db('logbook')
		.where({ kind: 'session_ended', actor_role: 'system' })
		.where('at', '>', now - TOLD_MS)
		.whereIn(
			'session_id',
			db('session')
				.where('ended_at', '>', now - TOLD_MS)
				.select('id')
		)
		.pluck('session_id');
	const sessions = await findSessions(db, (query) => query.whereIn('session.id', ids));
	return sessions
		.filter((session) => may(staff, 'see_session', placeOf(session)))
		.map(({ id, paper, room, endedAt }) => ({ id, title: paper.title, room: room.name, at: endedAt! }));
}

async function sittingsOf(db: Query, sessions: Session[], now: number): Promise<Map<string, Loaded[]>> {
	const bySession = new Map<string, Loaded[]>();
	for (const one of await loadSittingsOf(
		db,
		sessions.map((session) => session.id),
		now
	)) {
		bySession.set(one.session.id, [...(bySession.get(one.session.id) ?? []), one]);
	}
	return bySession;
}

/** Where everyone stood when an ended session ended: some of them belong to another session by now. */
async function outcomesOf(db: Query, sessions: Session[]): Promise<Map<string, SittingState[]>> {
	const rows: { session_id: string; here: string; outcome: SittingState | null; state: SittingState }[] = await db(
		'roster'
	)
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.whereIn(
			'roster.session_id',
			sessions.filter((session) => session.endedAt !== null).map((session) => session.id)
		)
		.select('roster.session_id', 'roster.outcome', 'sitting.session_id as here', 'sitting.state');
	const bySession = new Map<string, SittingState[]>();
	for (const row of rows) {
		const stood = row.here === row.session_id ? row.state : (row.outcome ?? 'carried_over');
		bySession.set(row.session_id, [...(bySession.get(row.session_id) ?? []), stood]);
	}
	return bySession;
}

async function proctorNames(db: Query, sessions: Session[]): Promise<Map<string, string>> {
	const rows: { id: string; name: string }[] = await db('staff')
		.whereIn(
			'id',
			sessions.flatMap((session) => session.proctorIds)
		)
		.select('id', 'name');
	return new Map(rows.map((row) => [row.id, row.name]));
}

function barOf(session: Session, sittings: Loaded[], outcomes: SittingState[], now: number): Bar {
	const { timing } = session.rules;
	const { opens, closes } = session.window;
	const ends = timing.limitMinutes === null ? (closes ?? opens + 60 * MINUTE) : opens + timing.limitMinutes * MINUTE;
	const open = sittings.filter(
		(one) => !['handed_in', 'time_up', 'absent', 'set_aside', 'carried_over'].includes(one.sitting.state)
	);
	const last = open.map((one) => one.reckoning.latestFinish).filter((end) => end !== null);
	const stage =
		session.endedAt !== null ? 'ended' : now >= opens ? 'running' : now >= doorOpensAt(session) ? 'door' : 'planned';
	return {
		id: session.id,
		title: session.paper.title,
		kind: session.kind,
		door: doorOpensAt(session),
		opens,
		ends: session.endedAt !== null ? Math.min(ends, session.endedAt) : ends,
		lastEnds: session.endedAt !== null ? Math.min(ends, session.endedAt) : Math.max(ends, ...last),
		stage,
		line: barLine(stage === 'ended' ? outcomes : sittings.map((one) => one.sitting.state), stage),
		needsProctor: session.proctorIds.length === 0 && session.endedAt === null
	};
}

/** Of a session over several days, what falls on the day that is drawn. */
function onItsDay(bar: Bar, { window, site }: Session, now: number): Bar {
	if (!isOverDays(window, site.zone)) return bar;
	const until = localMidnightAfter(now, site.zone);
	const from = localMidnightAfter(until - 36 * 60 * MINUTE, site.zone);
	const within = (at: number) => Math.min(Math.max(at, from), until);
	const { door, opens } = bar;
	const ends = bar.stage === 'ended' ? bar.ends : window.closes!;
	return {
		...bar,
		door: within(door),
		opens: within(opens),
		ends: within(ends),
		lastEnds: within(Math.max(ends, bar.lastEnds))
	};
}

function barLine(states: SittingState[], stage: Bar['stage']): string {
	const count = (...counted: SittingState[]) => states.filter((state) => counted.includes(state)).length;
	if (stage === 'planned') return `${states.length} expected`;
	const parts = [
		[count('let_in', 'working', 'on_hold'), 'in'],
		[count('handed_in', 'time_up'), 'done'],
		[count('at_door'), 'at the door'],
		[count('absent'), 'absent'],
		[count('carried_over'), 'carried over']
	] as const;
	return parts
		.filter(([n]) => n > 0)
		.map(([n, word]) => `${n} ${word}`)
		.join(' · ');
}

async function tellNext(db: Query, session: Session, now: number): Promise<Today['next']> {
	const ready = await readinessOf(db, session, now);
	if (!ready) return null;
	return {
		id: session.id,
		title: session.paper.title,
		room: session.room.name,
		opens: session.window.opens,
		door: doorOpensAt(session),
		sentence: ready.plan.sentence,
		ready: ready.lines
	};
}

/** Everyone carried over in a session that this person may see, however long ago: until they have gone on somewhere. */
async function carriedOver(db: Query, staff: StaffMember, now: number): Promise<Today['carried']> {
	const ids: string[] = await db('sitting').where({ state: 'carried_over', counts: 1 }).pluck('id');
	const loaded = (await loadSittings(db, ids, now)).filter((one) => may(staff, 'see_session', placeOf(one.session)));
	return loaded.map((one) => ({
		name: fullName(one.candidate),
		paper: one.session.paper.title,
		answered: one.answered,
		minutesLeft: one.reckoning.remaining === null ? null : Math.ceil(one.reckoning.remaining / MINUTE),
		joins:
			one.session.endedAt === null
				? { room: one.session.room.name, opens: one.session.window.opens, zone: one.session.site.zone }
				: null
	}));
}
