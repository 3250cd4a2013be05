import type { LogLine } from '$core/logbook';
import { ROWS_ENTRY, whereEveryWord, type Query } from '../db';
import { giveWay } from '../event-loop';
import { fullName } from '$core/names';
import type { Entry } from '../db';

export type LogSearch = {
	text?: string;
	sessionId?: string;
	sittingId?: string;
	/** Only entries before this `seq`. */
	before?: number;
	limit?: number;
	/** What people of the staff did, without candidates and the server itself. */
	byStaff?: boolean;
	/** Only what happened in sessions of these sites, and what this person did; without it, everything. */
	within?: { siteIds: string[]; staffId: string };
};

/** Entries that match, and how far was looked for them. */
export type LogPage = {
	lines: LogLine[];
	/** What is before this `seq` was not looked at; null: there is nothing before. */
	before: number | null;
	/** From when on all was looked at, where a page ended before it was full; null: it is full, or nothing is before. */
	since: number | null;
};

/** So many entries are read at a time: everything else that waits has its turn in between. */
const PART = 2_000;
/** One page looks at no more of them, which takes about a second. */
const LOOKED_AT = 100_000;

/** The newest entries first, of all that there are. Text is looked for in names, numbers, kinds and contents. */
export async function searchLogbook(db: Query, search: LogSearch): Promise<LogLine[]> {
	return (await lookThrough(db, search, Infinity)).lines;
}

/** A page of them: where few match in a long record, it ends before it is full. @param most entries that it looks at */
export async function logbookPage(db: Query, search: LogSearch, most = LOOKED_AT): Promise<LogPage> {
	const { lines, before } = await lookThrough(db, search, most);
	if (before === null || lines.length === limitOf(search)) return { lines, before, since: null };
	const entry: { at: number } = await db('logbook').where('seq', '>=', before).orderBy('seq').first('at');
	return { lines, before, since: entry.at };
}

/** How many entries a session has. */
export async function countOfSession(db: Query, sessionId: string): Promise<number> {
	const [row] = await db('logbook').where({ session_id: sessionId }).count<{ n: number }[]>('* as n');
	return row.n;
}

const limitOf = ({ limit = 200 }: LogSearch) => Math.min(limit, 1_000);

async function lookThrough(db: Query, search: LogSearch, most: number): Promise<Omit<LogPage, 'since'>> {
	const limit = limitOf(search);
	const last = await db('logbook').max<{ seq: number | null }[]>('seq as seq');
	const end = Math.min(search.before ?? Infinity, (last[0].seq ?? 0) + 1);
	// Those of one session or one sitting are found by an index, and are never many.
	const size = search.sessionId || search.sittingId ? end : PART;
	const lines: LogLine[] = [];
	for (let before = end; before > 1; before -= size) {
		if (before < end) await giveWay();
		if (end - before >= most) return { lines, before };
		const query = entries(db, { ...search, before }).limit(limit - lines.length);
		if (size < before) query.where('logbook.seq', '>=', before - size);
		lines.push(...((await query) as Row[]).map(toLine));
		const { seq } = lines.at(-1) ?? { seq: 0 };
		if (lines.length === limit && seq > 1) return { lines, before: seq };
	}
	return { lines, before: null };
}

type Row = Entry & Record<'session' | 'given' | 'family' | 'number' | 'staff', string | null>;

function entries(db: Query, search: LogSearch) {
	const query = db('logbook')
		// It is for the check of the record, and says nothing that another entry does not.
		.whereNot('logbook.kind', ROWS_ENTRY)
		.leftJoin('session', 'session.id', 'logbook.session_id')
		.leftJoin('sitting', 'sitting.id', 'logbook.sitting_id')
		.leftJoin('candidate', 'candidate.id', 'sitting.candidate_id')
		.leftJoin('staff', 'staff.id', 'logbook.actor_id')
		.orderBy('logbook.seq', 'desc')
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
	return query;
}

function toLine(row: Row): LogLine {
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
}
