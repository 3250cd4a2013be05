import type { LogLine } from '$core/logbook';
import { whereEveryWord, type Query } from '../db';
import { fullName } from '$core/names';
import type { Entry } from './logbook';

export type LogSearch = {
	text?: string;
	sessionId?: string;
	sittingId?: string;
	before?: number;
	limit?: number;
	/** What people of the staff did, without candidates and the server itself. */
	byStaff?: boolean;
	/** Only what happened in sessions of these sites, and what this person did; without it, everything. */
	within?: { siteIds: string[]; staffId: string };
};

/** The newest entries first; `before` is the last `seq` of the page above. Text is looked for in names, numbers, kinds and contents. */
export async function searchLogbook(db: Query, search: LogSearch): Promise<LogLine[]> {
	const query = db('logbook')
		.leftJoin('session', 'session.id', 'logbook.session_id')
		.leftJoin('sitting', 'sitting.id', 'logbook.sitting_id')
		.leftJoin('candidate', 'candidate.id', 'sitting.candidate_id')
		.leftJoin('staff', 'staff.id', 'logbook.actor_id')
		.orderBy('logbook.seq', 'desc')
		.limit(Math.min(search.limit ?? 200, 1_000))
		.select(
			'logbook.*',
			'session.name as session',
			'candidate.given',
			'candidate.family',
			'candidate.number',
			'staff.name as staff'
		);
	if (search.within) {
		const { siteIds, staffId } = search.within;
		query
			.leftJoin('room', 'room.id', 'session.room_id')
			.where((any) => void any.whereIn('room.site_id', siteIds).orWhere('logbook.actor_id', staffId));
	}
	if (search.sessionId) query.where('logbook.session_id', search.sessionId);
	if (search.sittingId) query.where('logbook.sitting_id', search.sittingId);
	if (search.byStaff) query.whereNotIn('logbook.actor_role', ['candidate', 'system']);
	if (search.before) query.where('logbook.seq', '<', search.before);
	whereEveryWord(query, search.text ?? '', [
		'logbook.kind',
		'logbook.body',
		'session.name',
		'candidate.given',
		'candidate.family',
		'candidate.number',
		'staff.name'
	]);
	const rows = (await query) as (Entry & Record<'session' | 'given' | 'family' | 'number' | 'staff', string | null>)[];
	return rows.map((row) => {
		const candidate = row.number ? `${fullName(row)} (${row.number})` : null;
		return {
			seq: row.seq,
			at: row.at,
			who: row.staff ?? (row.actor_role === 'candidate' ? (candidate ?? 'A candidate') : 'Otium'),
			kind: row.kind,
			session: row.session,
			candidate,
			body: JSON.parse(row.body),
			hash: row.hash,
			isEmptied: row.emptied !== null
		};
	});
}
