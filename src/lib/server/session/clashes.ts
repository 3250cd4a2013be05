import type { SessionFacts, SessionRules } from '$core/session';
import { IN_THE_ROOM } from '$core/sitting';
import { lastsUntil, MINUTE, NEW_TRACK, NO_GRANTS, reckon, workLastsUntil } from '$core/time';
import type { Query } from '../db';
import { loadSittings } from '../sitting';
import { seatCount, type Place, type RoomRow } from './facts';
import { type Need } from './time-needs';

/** Another session at the same time. */
export type Taken = { id: string; name: string; room_id: string };

/** Other sessions in which somebody may still work by then, or who begin before `until`; one without an end lasts its limit. */
export async function sessionsAt(db: Query, { window, editing }: Place, until: number, now: number): Promise<Taken[]> {
	const rows: (Taken & Lasting)[] = await db('session')
		.whereNull('ended_at')
		.whereNot('id', editing ?? '')
		.where('opens', '<', until)
		.where((any) => mayLastUntil(any, window.opens - LONGEST_MS))
		.select('id', 'name', 'room_id', 'opens', 'closes', 'rules');
	const goOn = await workAfter(
		db,
		rows.filter((row) => endOf(row) <= window.opens),
		window.opens,
		now
	);
	return rows.filter((row) => endOf(row) > window.opens || goOn.has(row.id));
}

/** Of sessions whose windows have closed by then, those in which somebody who came late, or has more time, still works. */
async function workAfter(db: Query, rows: (Taken & Lasting)[], at: number, now: number): Promise<Set<string>> {
	const read = rows.map((row) => ({ ...row, timing: (JSON.parse(row.rules) as SessionRules).timing }));
	const goOn = new Set(
		read
			.filter(({ timing, ...window }) => {
				const { latestFinish } = reckon(timing, window, NO_GRANTS, NEW_TRACK, window.opens);
				return workLastsUntil(timing, window, [latestFinish]) > at;
			})
			.map((row) => row.id)
	);
	const open = read.filter(({ id, timing }) => timing.atClose === 'finish' && !goOn.has(id));
	const more: string[] = await db('sitting')
		.whereIn(
			'session_id',
			open.map((row) => row.id)
		)
		.whereIn('state', ['expected', ...IN_THE_ROOM])
		.whereIn(
			'candidate_id',
			db('grant_given').whereNull('withdrawn_at').whereNotNull('candidate_id').select('candidate_id')
		)
		.pluck('id');
	for (const { session, reckoning } of await loadSittings(db, more, now))
		if (workLastsUntil(session.rules.timing, session.window, [reckoning.latestFinish]) > at) goOn.add(session.id);
	return goOn;
}

/** What tells how long a session lasts. */
type Lasting = { opens: number; closes: number | null; rules: string };
/** No paper takes longer. */
const LONGEST_MS = 24 * 60 * MINUTE;

/** Narrows to sessions that may still go on at an instant; those without an end are looked at one by one. */
function mayLastUntil(query: ReturnType<Query['queryBuilder']>, at: number) {
	query
		.where('session.closes', '>', at)
		.orWhere((open) => open.whereNull('session.closes').where('session.opens', '>', at - LONGEST_MS));
}

function endOf({ opens, closes, rules }: Lasting): number {
	return lastsUntil((JSON.parse(rules) as SessionRules).timing, { opens, closes });
}

/** Rooms of the site in which nothing is then, with enough seats. */
export async function freeRooms(db: Query, place: Place, others: Taken[]): Promise<SessionFacts['otherRooms']> {
	const taken = new Set(others.map((one) => one.room_id));
	const rows: RoomRow[] = await db('room').where({ site_id: place.room.site_id }).whereNot('id', place.room.id);
	return rows
		.filter((room) => !taken.has(room.id))
		.map((room) => ({ id: room.id, name: room.name, seats: seatCount(room) }))
		.sort((a, b) => a.seats - b.seats);
}

/** Commitments and other sessions that fall into the time a candidate needs. */
export async function candidateClashes(
	db: Query,
	{ window, roster, rules, editing }: Place,
	needs: Need[]
): Promise<SessionFacts['clashes']['candidates']> {
	const until = new Map(
		needs.map((need) => {
			const natural = window.opens + (need.minutes ?? 60) * MINUTE;
			return [
				need.id,
				rules.timing.atClose === 'cut' && window.closes !== null ? Math.min(natural, window.closes) : natural
			];
		})
	);
	const last = Math.max(window.opens, ...until.values());
	const ids = roster.people.map((person) => person.candidateId);
	const commitments: { candidate_id: string; from_at: number; to_at: number; title: string }[] = await db('commitment')
		.whereIn('candidate_id', ids)
		.where('from_at', '<', last)
		.where('to_at', '>', window.opens)
		.select('candidate_id', 'from_at', 'to_at', 'title');
	const sittings: (Lasting & { candidate_id: string; title: string })[] = await db('sitting')
		.join('session', 'session.id', 'sitting.session_id')
		.whereIn('sitting.candidate_id', ids)
		.whereNot('session.id', editing ?? '')
		.whereNull('session.ended_at')
		.whereIn('sitting.state', ['expected', 'at_door', 'let_in', 'working', 'on_hold'])
		.where('session.opens', '<', last)
		.where((any) => mayLastUntil(any, window.opens))
		.select('sitting.candidate_id', 'session.name as title', 'session.opens', 'session.closes', 'session.rules');
	const elsewhere = sittings
		.map((row) => ({ ...row, from_at: row.opens, to_at: endOf(row) }))
		.filter((row) => row.to_at > window.opens);
	const named = new Map(roster.people.map((person) => [person.candidateId, person.name]));
	return [...commitments, ...elsewhere]
		.filter((row) => row.from_at < until.get(row.candidate_id)!)
		.map((row) => ({
			person: { id: row.candidate_id, name: named.get(row.candidate_id)! },
			with: row.title,
			from: row.from_at,
			to: until.get(row.candidate_id)!
		}))
		.sort((a, b) => a.from - b.from);
}

/** Proctors who are somewhere else then. */
export async function proctorClashes(
	db: Query,
	place: Place,
	others: Taken[]
): Promise<SessionFacts['clashes']['proctors']> {
	const rows: { name: string; session_id: string }[] = await db('session_proctor')
		.join('staff', 'staff.id', 'session_proctor.staff_id')
		.whereIn('staff_id', place.input.proctorIds)
		.whereIn(
			'session_id',
			others.map((one) => one.id)
		)
		.select('staff.name', 'session_id');
	return rows.map((row) => ({ name: row.name, with: others.find((one) => one.id === row.session_id)!.name }));
}
