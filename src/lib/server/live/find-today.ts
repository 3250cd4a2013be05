import { fullName } from '$core/names';
import { findByWords, type FoundToday } from '$core/room';
import { sameLocalDay } from '$core/time';
import type { Query } from '../db';
import type { Session } from '../session';

const DAY = 24 * 3_600_000;
const MOST = 20;

/** Whoever sits anything at the session's site on its day, by any part of name, number or group; those of this session first. */
export async function findToday(db: Query, session: Session, text: string): Promise<FoundToday[]> {
	const { opens } = session.window;
	const rows: (Omit<FoundToday, 'session' | 'name'> & {
		given: string;
		family: string;
		sessionId: string;
		sessionName: string;
		room: string;
		opens: number;
	})[] = await db('sitting')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.join('candidate_group', 'candidate_group.id', 'candidate.group_id')
		.join('session', 'session.id', 'sitting.session_id')
		.join('room', 'room.id', 'session.room_id')
		.where('room.site_id', session.site.id)
		.whereBetween('session.opens', [opens - DAY, opens + DAY])
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
			'session.opens'
		);
	const found = findByWords(
		rows
			.filter((row) => sameLocalDay(row.opens, opens, session.site.zone))
			.map(({ given, family, ...row }) => ({ ...row, name: fullName({ given, family }) })),
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
