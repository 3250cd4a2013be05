import type { Query } from './open';

/**
 * Answers that are kept without counting though they are newer than what counts. The reasons stand as literals, so that
 * the partial index on them is used.
 */
export function heldAnswers(db: Query, sittingIds: string[]) {
	return db('answer')
		.leftJoin('answer_standing as standing', (join) =>
			join.on('standing.sitting_id', 'answer.sitting_id').andOn('standing.question_id', 'answer.question_id')
		)
		.whereIn('answer.sitting_id', sittingIds)
		.whereRaw("answer.kept_because IN ('after_end', 'freed_device', 'unproven', 'on_hold', 'question_over')")
		.whereRaw('(standing.seq IS NULL OR (answer.epoch, answer.seq) > (standing.epoch, standing.seq))');
}
