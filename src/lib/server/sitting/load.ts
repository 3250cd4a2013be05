import { mergeGrants, type Grant, type GrantPlace, type Merge } from '$core/grants';
import type { PaceLevel } from '$core/pace';
import { rulesElsewhere } from '$core/session';
import { trackOf, type Sitting } from '$core/sitting';
import { reckon, reckonQuestion, type QuestionTime, type Reckoning } from '$core/time';
import type { Query } from '../db';
import { mapInParts } from '../event-loop';
import { findGrants, findSessions, type Session } from '../records';
import { lastShown, type Shown } from './question-shown';

/** A sitting with all that bears on it now. */
export type Loaded = {
	sitting: Sitting;
	candidate: {
		id: string;
		number: string;
		given: string;
		family: string;
		language: string | null;
		/** They do not sit in the room: their session's rules are those that hold elsewhere. */
		elsewhere: boolean;
	};
	session: Session;
	paperId: string;
	/** From 1. */
	attempt: number;
	grants: Grant[];
	merge: Merge;
	reckoning: Reckoning;
	/** The question that was shown last, as far as the rules give it a time of its own; null: they do not. */
	question: QuestionTime | null;
	shown: Shown | null;
	answered: number;
	marked: number;
	lastAnswerAt: number | null;
	pace: PaceLevel;
	rapid: number;
};

type Row = {
	id: string;
	candidate_id: string;
	paper_id: string;
	session_id: string;
	attempt: number;
	fold: string;
	answered: number | null;
	marked: number | null;
	last_answer_at: number | null;
	pace: PaceLevel | null;
	rapid: number | null;
	number: string;
	given: string;
	family: string;
	language: string | null;
	elsewhere: number;
};

/** Loads sittings by id; unknown ids are left out. The order is not kept. */
export async function loadSittings(db: Query, ids: string[], now: number): Promise<Loaded[]> {
	const rows: Row[] = [];
	for (let i = 0; i < ids.length; i += 10_000) {
		rows.push(
			...(await db('sitting')
				.join('candidate', 'candidate.id', 'sitting.candidate_id')
				.leftJoin('progress', 'progress.sitting_id', 'sitting.id')
				.whereIn('sitting.id', ids.slice(i, i + 10_000))
				.select(
					'sitting.id',
					'sitting.candidate_id',
					'sitting.paper_id',
					'sitting.session_id',
					'sitting.attempt',
					'sitting.fold',
					'progress.answered',
					'progress.marked',
					'progress.last_answer_at',
					'progress.pace',
					'progress.rapid',
					'candidate.number',
					'candidate.given',
					'candidate.family',
					'candidate.language',
					'candidate.elsewhere'
				))
		);
	}
	const folds = new Map(rows.map((row) => [row.id, JSON.parse(row.fold) as Sitting]));
	const sessionIds = [...new Set(rows.map((row) => row.session_id))];
	// What was given to all in an earlier session goes on with the work that was begun there.
	const visited = [...folds.values()].flatMap((sitting) => sitting.visits.map((visit) => visit.sessionId));
	const sessions = new Map(
		(await findSessions(db, (q) => q.whereIn('session.id', sessionIds))).map((one) => [one.id, one])
	);
	const grants = await findGrants(
		db,
		rows.map((row) => row.candidate_id),
		[...new Set([...sessionIds, ...visited])]
	);
	const shown = await lastShown(
		db,
		rows.filter((row) => sessions.get(row.session_id)!.rules.timing.questionSeconds !== null).map((row) => row.id)
	);
	const personal = new Map<string | null, Grant[]>();
	for (const grant of grants) {
		const list = personal.get(grant.candidateId) ?? [];
		personal.set(grant.candidateId, [...list, grant]);
	}
	return rows.map((row) => {
		const own = [...(personal.get(row.candidate_id) ?? []), ...(personal.get(null) ?? [])];
		const known = {
			sitting: folds.get(row.id)!,
			session: sessions.get(row.session_id)!,
			shown: shown.get(row.id) ?? null
		};
		return toLoaded(row, known, own, now);
	});
}

/** So many are loaded before others get a turn. */
const AT_ONCE = 100;

/** Loads all sittings that now belong to these sessions: of several attempts the latest. Gives way between parts. */
export async function loadSittingsOf(db: Query, sessionIds: string[], now: number): Promise<Loaded[]> {
	const ids: string[] = await db('sitting').whereIn('session_id', sessionIds).whereNull('next_attempt_id').pluck('id');
	return mapInParts(ids, AT_ONCE, (part) => loadSittings(db, part, now));
}

/** Of these sittings the ones that now belong to a session; what a request names and is not here is left out. */
export function sittingsHere(
	db: Query,
	sessionId: string,
	ids: string[]
): Promise<{ id: string; candidate_id: string }[]> {
	return db('sitting').where({ session_id: sessionId }).whereIn('id', ids).select('id', 'candidate_id');
}

export async function loadSitting(db: Query, id: string, now: number): Promise<Loaded | null> {
	const [loaded] = await loadSittings(db, [id], now);
	return loaded ?? null;
}

type Known = Pick<Loaded, 'sitting' | 'session' | 'shown'>;

function toLoaded(row: Row, { sitting, session, shown }: Known, grants: Grant[], now: number): Loaded {
	const place = placeOfGrants(sitting, session, row.candidate_id, row.paper_id);
	const merge = mergeGrants(grants, place, session.site.zone);
	return {
		sitting,
		candidate: {
			id: row.candidate_id,
			number: row.number,
			given: row.given,
			family: row.family,
			language: row.language,
			elsewhere: Boolean(row.elsewhere)
		},
		session: row.elsewhere ? { ...session, rules: rulesElsewhere(session.rules) } : session,
		paperId: row.paper_id,
		attempt: row.attempt,
		grants,
		merge,
		reckoning: reckonFor(sitting, session, merge, now),
		question: questionFor({ sitting, session, merge, shown }, now),
		shown,
		answered: row.answered ?? 0,
		marked: row.marked ?? 0,
		lastAnswerAt: row.last_answer_at,
		pace: row.pace ?? 'calm',
		rapid: row.rapid ?? 0
	};
}

/** The reckoning of a sitting in its session under what was granted. */
export function reckonFor(sitting: Sitting, session: Session, merge: Merge, now: number): Reckoning {
	return reckon(session.rules.timing, session.window, merge.grants, trackOf(sitting, session), now);
}

/** The time of the question that was shown last. */
export function questionFor(
	{ sitting, session, merge, shown }: Pick<Loaded, 'sitting' | 'session' | 'merge' | 'shown'>,
	now: number
): QuestionTime | null {
	return shown && reckonQuestion(session.rules.timing, merge.grants, trackOf(sitting, session), shown, now);
}

/** Reckons again with other grants, to tell what they would do. */
export function regrant(loaded: Loaded, grants: Grant[], now: number): Loaded {
	const { session, sitting } = loaded;
	const place = placeOfGrants(sitting, session, loaded.candidate.id, loaded.paperId);
	const merge = mergeGrants(grants, place, session.site.zone);
	const question = questionFor({ ...loaded, merge }, now);
	return { ...loaded, grants, merge, question, reckoning: reckonFor(sitting, session, merge, now) };
}

function placeOfGrants(sitting: Sitting, session: Session, candidateId: string, paperId: string): GrantPlace {
	return {
		candidateId,
		administrationId: session.administrationId,
		paperId,
		sessionId: session.id,
		opens: session.window.opens,
		visits: sitting.visits
	};
}
