import { addUp, type Ledger } from '$core/closing';
import { countingScore, type Reached } from '$core/attempts';
import { groupBy } from '$core/group-by';
import type { Score } from '$core/marking';
import { fullName } from '$core/names';
import type { Sitting, SittingState } from '$core/sitting';
import { heldBack } from '../answers';
import { lateAnswers, type Query } from '../db';
import { mapInParts } from '../event-loop';
import { scoresOf } from '../marking';
import { rosterOf } from '../records';
import type { Session } from '../session';

/** A candidate's line in the account of a session. */
export type Line = {
	sittingId: string;
	number: string;
	name: string;
	seat: string | null;
	state: SittingState;
	answered: number;
	questions: number;
	/** null: nothing to mark, or it counts nothing. */
	score: Score | null;
	/** From 1. */
	attempt: number;
	/** What counts of all attempts, by the rule; null: no attempt has a score. */
	counted: Reached | null;
	receipt: string | null;
	endedAt: number | null;
	reason: string | null;
	/** It was not handed in, and the rules say that it counts nothing then. */
	countsNothing: boolean;
	/** Answers that count and came after the time, marked late. */
	late: number;
	/** Answers that came after the end and do not count unless a person says so. */
	heldBack: number;
};

export type Account = { ledger: Ledger; lines: Line[] };

type Row = {
	sitting_id: string;
	session_id: string;
	seat: string | null;
	outcome: SittingState | null;
	state: SittingState;
	fold: string;
	answered: number | null;
	number: string;
	given: string;
	family: string;
	form: string | null;
	attempt: number;
	candidate_id: string;
};

/** Everyone who was expected in a session, where they stand in it, and what they reached. */
export async function accountFor(db: Query, session: Session): Promise<Account> {
	return { ledger: await ledgerFor(db, session.id), lines: await linesFor(db, session, await byName(db, session.id)) };
}

/** Everyone of a session in one column each. */
export async function ledgerFor(db: Query, sessionId: string): Promise<Ledger> {
	return addUp(await rosterOf(db, sessionId), await standings(db, sessionId));
}

/** The sittings that a session expected, by the names of those who sat. */
export function byName(db: Query, sessionId: string): Promise<string[]> {
	return db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.where({ 'roster.session_id': sessionId })
		.orderBy(['candidate.family', 'candidate.given', 'candidate.number'])
		.pluck('roster.sitting_id');
}

/** So many are marked before everything else has its turn. */
const AT_ONCE = 25;

/** The lines of these sittings of a session, in their order. */
export function linesFor(db: Query, session: Session, sittingIds: string[]): Promise<Line[]> {
	return mapInParts(sittingIds, AT_ONCE, (part) => someLines(db, session, part));
}

async function someLines(db: Query, session: Session, sittingIds: string[]): Promise<Line[]> {
	const found: Row[] = await db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.join('candidate', 'candidate.id', 'sitting.candidate_id')
		.leftJoin('form', 'form.sitting_id', 'sitting.id')
		.leftJoin('progress', 'progress.sitting_id', 'sitting.id')
		.where({ 'roster.session_id': session.id })
		.whereIn('roster.sitting_id', sittingIds)
		.select(
			'roster.sitting_id',
			'roster.seat',
			'roster.outcome',
			'sitting.session_id',
			'sitting.state',
			'sitting.fold',
			'progress.answered',
			'candidate.number',
			'candidate.given',
			'candidate.family',
			'form.form',
			'sitting.attempt',
			'sitting.candidate_id'
		);
	const byId = new Map(found.map((row) => [row.sitting_id, row]));
	const rows = sittingIds.flatMap((id) => byId.get(id) ?? []);
	const earlier = await earlierAttempts(db, session, rows);
	const scores = await scoresOf(
		db,
		[...rows, ...earlier].flatMap(({ sitting_id, form, fold }) =>
			form === null
				? []
				: [
						{
							sittingId: sitting_id,
							administrationId: session.administrationId,
							paperId: session.paper.id,
							form,
							marking: session.rules.marking,
							leftMs: (JSON.parse(fold) as Sitting).ended?.leftMs ?? null
						}
					]
		)
	);
	const scoreOf = (row: { sitting_id: string }): Score | null => scores.get(row.sitting_id)?.score ?? null;
	const held = await heldBack(
		db,
		rows.map((row) => row.sitting_id)
	);
	const late = await lateAnswers(
		db,
		rows.map((row) => row.sitting_id)
	);
	const reachedBefore = groupBy(earlier, (row) => row.candidate_id);

	return rows.map((row): Line => {
		const fold: Sitting = JSON.parse(row.fold);
		const movedOn = row.session_id !== session.id;
		const state = movedOn ? (row.outcome ?? 'carried_over') : row.state;
		const isScored = !movedOn && (state === 'handed_in' || state === 'time_up') && !fold.ended?.countsNothing;
		const score = isScored ? scoreOf(row) : null;
		const reached = [...(reachedBefore.get(row.candidate_id) ?? []).map(scoreOf), score].filter((one) => one !== null);
		return {
			sittingId: row.sitting_id,
			number: row.number,
			name: fullName(row),
			seat: row.seat,
			state,
			answered: row.answered ?? 0,
			questions: scores.get(row.sitting_id)?.form.questions.length ?? 0,
			score,
			attempt: row.attempt,
			counted: movedOn ? null : countingScore(session.rules.attempts.counts, reached),
			receipt: movedOn ? null : (fold.ended?.receipt ?? null),
			endedAt: movedOn ? null : (fold.ended?.at ?? null),
			reason: fold.reason,
			countsNothing: fold.ended?.countsNothing ?? false,
			late: movedOn ? 0 : (late.get(row.sitting_id) ?? 0),
			heldBack: movedOn ? 0 : (held.get(row.sitting_id)?.count ?? 0)
		};
	});
}

/**
 * Where each sitting of a session stands, from the sittings and not from the roster: those that are here now, and those
 * that left with an outcome. A sitting that the roster has lost, or a place without one, then shows.
 */
async function standings(db: Query, sessionId: string): Promise<{ id: string; state: SittingState }[]> {
	const here: { id: string; state: SittingState }[] = await db('sitting')
		.where({ session_id: sessionId })
		.whereNull('next_attempt_id')
		.select('id', 'state');
	const left: { id: string; state: SittingState }[] = await db('roster')
		.join('sitting', 'sitting.id', 'roster.sitting_id')
		.where({ 'roster.session_id': sessionId })
		.whereNot({ 'sitting.session_id': sessionId })
		.whereNotNull('roster.outcome')
		.select('sitting.id', 'roster.outcome as state');
	return [...here, ...left];
}

type Earlier = { sitting_id: string; candidate_id: string; form: string | null; fold: string };

/** The attempts at the paper that these candidates have ended before, in their order. */
async function earlierAttempts(db: Query, session: Session, rows: Row[]): Promise<Earlier[]> {
	const again = rows.filter((row) => row.attempt > 1);
	if (again.length === 0) return [];
	const before: (Earlier & { attempt: number })[] = await db('sitting')
		.leftJoin('form', 'form.sitting_id', 'sitting.id')
		.whereIn(
			'candidate_id',
			again.map((row) => row.candidate_id)
		)
		.where({
			paper_id: session.paper.id,
			administration_id: session.administrationId,
			counts: session.kind === 'rehearsal' ? 0 : 1
		})
		.whereIn('state', ['handed_in', 'time_up'])
		.orderBy('attempt')
		.select('sitting.id as sitting_id', 'sitting.candidate_id', 'sitting.attempt', 'sitting.fold', 'form.form');
	const latest = new Map(again.map((row) => [row.candidate_id, row.attempt]));
	return before.filter(
		(row) => row.attempt < latest.get(row.candidate_id)! && !(JSON.parse(row.fold) as Sitting).ended?.countsNothing
	);
}
