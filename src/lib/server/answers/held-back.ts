import { groupBy } from '$core/group-by';
import type { KeptBecause } from '$core/logbook';
import { NOTES } from '$core/paper';
import type { Actor } from '$core/sitting';
import { heldAnswers, standAnswers, transact, type AnswerRow, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Acting } from '../house';
import { standingRow } from './write-group';

/** Answers that are kept without counting though they are newer than what counts, since when, and why. */
export type HeldBack = { count: number; since: number; because: KeptBecause[] };

/**
 * What arrived after the end, on hold, or from a device that was freed, as after a line that was down for longer than the
 * paper, and would change what counts. A person decides about it. By sitting; those without any are left out.
 */
export async function heldBack(db: Query, sittingIds: string[]): Promise<Map<string, HeldBack>> {
	const rows = (await held(db, sittingIds)
		.groupBy('answer.sitting_id')
		.select('answer.sitting_id as id')
		.countDistinct('answer.question_id as count')
		.min('received_at as since')) as unknown as { id: string; count: number; since: number }[];
	if (rows.length === 0) return new Map();
	const reasons: { id: string; because: KeptBecause }[] = await held(
		db,
		rows.map(({ id }) => id)
	)
		.distinct('answer.sitting_id as id', 'kept_because as because')
		.orderBy('kept_because');
	const becauseOf = groupBy(reasons, ({ id }) => id);
	return new Map(
		rows.map(({ id, count, since }) => [
			id,
			{ count, since, because: (becauseOf.get(id) ?? []).map(({ because }) => because) }
		])
	);
}

/**
 * Lets what is held back count. Nothing that is newer is replaced, and what was kept stays as it was kept; counting
 * twice changes nothing. Returns how many questions it was.
 */
export async function countHeldBack(
	otium: Acting,
	by: Actor,
	sessionId: string,
	sittingId: string,
	reason: string
): Promise<number> {
	const now = otium.now();
	const count = await transact(otium.db, async (trx) => {
		const rows: AnswerRow[] = await held(trx, [sittingId]).orderBy(['answer.epoch', 'answer.seq']).select('answer.*');
		if (rows.length === 0) return 0;
		await standAnswers(trx, rows.map(standingRow), now);
		const answers = new Set(rows.map((row) => row.question_id)).size;
		await appendToLogbook(trx, [
			{ at: now, by, kind: 'answers_counted', sessionId, sittingId, body: { answers, reason } }
		]);
		return answers;
	});
	if (count > 0) otium.hub.answered([{ sittingId, sessionId }]);
	return count;
}

function held(db: Query, sittingIds: string[]) {
	return heldAnswers(db, sittingIds).whereNot('answer.question_id', NOTES);
}
