import { NOTES } from '$core/paper';
import type { Actor } from '$core/sitting';
import { heldAnswers, standAnswers, transact, type AnswerRow, type Query } from '../db';
import { appendToLogbook } from '../logbook';
import type { Acting } from '../house';
import { standingRow } from './write-group';

/** Answers that are kept without counting though they are newer than what counts, and since when. */
export type HeldBack = { count: number; since: number };

/**
 * What arrived after the end, on hold, or from a device that was freed, as after a line that was down for longer than the
 * paper, and would change what counts. A person decides about it. By sitting; those without any are left out.
 */
export async function heldBack(db: Query, sittingIds: string[]): Promise<Map<string, HeldBack>> {
	const rows = (await held(db, sittingIds)
		.groupBy('answer.sitting_id')
		.select('answer.sitting_id as id')
		.countDistinct('answer.question_id as count')
		.min('received_at as since')) as unknown as (HeldBack & { id: string })[];
	return new Map(rows.map(({ id, count, since }) => [id, { count, since }]));
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
