import { may, sitesWith, type StaffMember } from '$core/access';
import { FINDER_VERBS, readWish, type FinderAct, type Found } from '$core/finder';
import { groupBy } from '$core/group-by';
import { fullName } from '$core/names';
import { offers, type Touchable } from '$core/room';
import { breakSince, isInTheRoom, STATE_NAMES, type Sitting, type SittingState } from '$core/sitting';
import { beginningFirst, nearestFirst, whereEveryWord, type Query } from '../db';
import { doorOpensAt, findSessions, placeOf, type Session } from '../session';

/** Of each kind so many lines are shown; more words find fewer. */
const MOST = 6;
/** Rows looked at before it is asked who may see them. */
const LOOKED_AT = 60;
const NAMES = ['candidate.given', 'candidate.family', 'candidate.number', 'candidate_group.name'];

/** Anybody and anything that somebody of the staff may see, by any words of it; acts come first where a verb was typed. */
export async function findAnything(db: Query, staff: StaffMember, text: string, now: number): Promise<Found[]> {
	const { act, words } = readWish(text.slice(0, 100));
	if (words === '') return [];
	const inSessions = await sittingsBy(db, staff, words, now);
	if (act !== null) return actsOn(inSessions, staff, act).slice(0, MOST);
	const [people, sessions] = await Promise.all([peopleBy(db, staff, words), sessionsBy(db, staff, words, now)]);
	return [
		...inSessions.slice(0, MOST).map(personLine),
		// Somebody who sits today is found in their room, and once more with their own page.
		...people,
		...sessions
	];
}

type InSession = {
	sittingId: string;
	name: string;
	number: string;
	seat: Touchable;
	session: Session;
};

/** Those who sit in a session that has not ended and that somebody may see, the soonest first. */
async function sittingsBy(db: Query, staff: StaffMember, words: string, now: number): Promise<InSession[]> {
	const query = db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.join('session', 'session.id', 'sitting.session_id')
		.join('room', 'room.id', 'session.room_id')
		// Sittings of sessions that have ended are not read.
		.whereIn('sitting.session_id', db('session').whereNull('ended_at').select('id'))
		.limit(LOOKED_AT)
		.select(
			'sitting.id',
			'sitting.state',
			'sitting.session_id',
			'candidate.number',
			'candidate.given',
			'candidate.family',
			'sitting.fold'
		);
	whereEveryWord(query, words, NAMES);
	beginningFirst(query, words, ['candidate.given', 'candidate.family']);
	nearestFirst(query, 'session.opens', now);
	void query.orderBy(['candidate.family', 'candidate.given']);
	mine(db, query, staff);
	const rows: Record<string, string>[] = await query;
	const sessions = new Map(
		(await findSessions(db, (q) => q.whereIn('session.id', [...new Set(rows.map((row) => row.session_id))]))).map(
			(session) => [session.id, session]
		)
	);
	return rows
		.map((row) => ({
			sittingId: row.id,
			name: fullName(row),
			number: row.number,
			seat: touchable(row.state as SittingState, JSON.parse(row.fold)),
			session: sessions.get(row.session_id)!
		}))
		.filter(({ session }) => may(staff, 'see_session', placeOf(session)));
}

/** Narrows to sessions of somebody's sites, and those in which they supervise everyone or somebody in a window of their own. */
function mine(db: Query, query: ReturnType<Query['queryBuilder']>, staff: StaffMember): void {
	const sites = sitesWith(staff, 'see_session');
	if (sites === null) return;
	const supervised = db('session_proctor').where({ staff_id: staff.id }).select('session_id');
	const beside = db('grant_given')
		.where({ proctor_id: staff.id, scope_kind: 'session', withdrawn_at: null })
		.select('scope_id');
	query.where((any) =>
		any.whereIn('room.site_id', sites).orWhereIn('session.id', supervised).orWhereIn('session.id', beside)
	);
}

const touchable = (state: SittingState, sitting: Sitting): Touchable => ({
	state,
	begun: sitting.beganAt !== null,
	device: sitting.device?.name ?? null,
	onBreak: breakSince(sitting) !== null,
	movedOn: false
});

function personLine({ name, number, seat, session, sittingId }: InSession): Found {
	return {
		kind: 'person',
		title: `${name}, ${number}`,
		detail: `${STATE_NAMES[seat.state]}: ${session.paper.title}, ${session.room.name},`,
		when: whenOf(session),
		href: `/live/${session.id}?seat=${sittingId}`
	};
}

/** The act for each whom it would touch; what is asked before it is done is asked in their room. */
function actsOn(found: InSession[], staff: StaffMember, act: FinderAct): Found[] {
	return found
		.filter(({ session, seat }) => {
			const place = placeOf(session);
			if (!may(staff, 'run_session', place)) return false;
			if (act === 'minutes' || act === 'message') return isInTheRoom(seat.state);
			return offers(seat, may(staff, 'reopen', place) ? 'coordinator' : 'proctor').includes(act);
		})
		.map(({ name, number, seat, session, sittingId }) => ({
			kind: 'act',
			title: `${FINDER_VERBS[act][0]} ${name}`,
			detail: `${number}, ${STATE_NAMES[seat.state].toLowerCase()} in ${session.room.name}`,
			href: `/live/${session.id}?seat=${sittingId}&ask=${act}`
		}));
}

async function peopleBy(db: Query, staff: StaffMember, words: string): Promise<Found[]> {
	const sites = sitesWith(staff, 'prepare');
	if (sites?.length === 0) return [];
	const query = db('candidate')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.whereNull('candidate.left_at')
		.limit(MOST)
		.select('candidate.id', 'candidate.given', 'candidate.family', 'candidate.number', 'candidate_group.name as group');
	if (sites !== null) query.whereIn('candidate_group.site_id', sites);
	whereEveryWord(query, words, NAMES);
	beginningFirst(query, words, ['candidate.given', 'candidate.family']);
	void query.orderBy(['candidate.family', 'candidate.given', 'candidate.number']);
	const rows: Record<string, string>[] = await query;
	return rows.map((row) => ({
		kind: 'person',
		title: `${fullName(row)}, ${row.number}`,
		detail: `Their page: details, timetable, accommodations. ${row.group}`,
		href: `/prepare/people/${row.id}`
	}));
}

async function sessionsBy(db: Query, staff: StaffMember, words: string, now: number): Promise<Found[]> {
	const query = db('session')
		.join('room', 'room.id', 'session.room_id')
		.join('paper', 'paper.id', 'session.paper_id')
		.limit(LOOKED_AT);
	whereEveryWord(query, words, ['session.name', 'room.name', 'paper.title']);
	mine(db, query, staff);
	nearestFirst(query, 'session.opens', now);
	const ids: string[] = await query.pluck('session.id');
	const near = (await findSessions(db, (narrow) => narrow.whereIn('session.id', ids)))
		.filter((session) => may(staff, 'see_session', placeOf(session)))
		.sort((a, b) => ids.indexOf(a.id) - ids.indexOf(b.id));
	const papers = groupBy(near, ({ paper }) => `${paper.title}, version ${paper.version}`);
	return [
		...near.slice(0, MOST).map((session): Found => ({
			kind: 'session',
			title: session.name,
			detail: `${session.room.name},`,
			when: whenOf(session),
			href: hrefOf(session, staff, now)
		})),
		...[...papers].slice(0, MOST).map(([paper, sessions]): Found => ({
			kind: 'paper',
			title: paper,
			detail: `${sessions.length === 1 ? 'One session' : `${sessions.length} sessions`}; the nearest is`,
			when: whenOf(sessions[0]),
			href: hrefOf(sessions[0], staff, now)
		}))
	];
}

/** Where a session is looked at now: before its day where it was planned, then in its room, then in its ledger. */
function hrefOf(session: Session, staff: StaffMember, now: number): string {
	if (session.endedAt !== null) return `/close-out/${session.id}`;
	const isPlanned = now < doorOpensAt(session) && may(staff, 'prepare', placeOf(session));
	return isPlanned ? `/prepare/${session.id}` : `/live/${session.id}`;
}

const whenOf = ({ window, site }: Session) => ({ at: window.opens, zone: site.zone });
