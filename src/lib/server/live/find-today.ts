import { fullName } from '$core/names';
import { findByWords, type FoundToday } from '$core/room';
import { localDate, reachesInto } from '$core/time';
import type { Query } from '../db';
import { aroundTime, type Session } from '../records';

const MOST = 20;

/** Whoever sits anything at the session's site on its day, by any part of name, number or group; those of this session first. */
export async function findToday(db: Query, session: Session, text: string, now: number): Promise<FoundToday[]> {
	const { opens, closes } = session.window;
	// Of a session over several days it is the day that is now, as far as that is one of them.
	const at = Math.max(opens, Math.min(now, closes ?? opens));
	const day = localDate(at, session.site.zone);
	const rows: (Omit<FoundToday, 'session' | 'name'> & {
		given: string;
		family: string;
		sessionId: string;
		sessionName: string;
		room: string;
		opens: number;
		closes: number | null;
	})[] = await db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.join('session', 'session.id', 'sitting.session_id')
		.join('room', 'room.id', 'session.room_id')
		.where('room.site_id', session.site.id)
		// Only the sittings of these sessions are read, by index.
		.whereIn(
			'sitting.session_id',
			db('session')
				.modify((query) => aroundTime(query, at))
				.select('id')
		)
		.whereNull('sitting.next_attempt_id')
		.orderBy(['candidate.family', 'candidate.given', 'session.opens'])
		.select(
			'sitting.id as sittingId',
			'candidate.given',
			'candidate.family',
			'candidate.number',
			'candidate_group.name as group',
			'sitting.state',
			'session.id as sessionId',
			'session.name as sessionName',
			'room.name as room',
			'session.opens',
			'session.closes'
		);
	// Asked once of each session, not of each of the thousand who may sit on a day.
	const sessions = new Map(rows.map((row) => [row.sessionId, row]));
	const today = new Set(
		[...sessions.values()].filter((one) => reachesInto(one, day, session.site.zone)).map((one) => one.sessionId)
	);
	const found = findByWords(
		rows
			.filter((row) => today.has(row.sessionId))
			.map(({ given, family, closes: _, ...row }) => ({ ...row, name: fullName({ given, family }) })),
		text,
		(row) => [row.name, row.number, row.group]
	);
	const isHere = (row: { sessionId: string }) => (row.sessionId === session.id ? 0 : 1);
	return found
		.sort((a, b) => isHere(a) - isHere(b))
		.slice(0, MOST)
		.map(({ sessionId, sessionName, room, opens, ...one }) => ({
			...one,
			session: { id: sessionId, name: sessionName, room, opens }
		}));
}
