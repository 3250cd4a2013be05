import type { AnswerValue } from '$core/paper';
import { appendAnswers, type Query } from '../db';
import { standingRow } from './write-group';

type Given = { value?: AnswerValue; marked?: boolean; struck?: string[] };

/** What stands of a sitting's answers: by question, with what is marked and struck beside it. */
export async function givenIn(db: Query, sittingId: string): Promise<Map<string, Given & { inViewMs: number }>> {
	const rows: { question_id: string; value: string; in_view_ms: number }[] = await db('answer_standing')
		.where({ sitting_id: sittingId })
		.select('question_id', 'value', 'in_view_ms');
	return new Map(
		rows.map((row) => [row.question_id, { ...(JSON.parse(row.value) as Given), inViewMs: row.in_view_ms }])
	);
}

/**
 * Adds answers that no device sent, within a transaction: revisions like any other, in the chain of answers, after all that
 * has come. Whoever calls this tells the log whose hand it was.
 */
export async function addAnswers(
	trx: Query,
	sittingId: string,
	answers: { questionId: string; value: AnswerValue }[],
	now: number
): Promise<void> {
	const before = await givenIn(trx, sittingId);
	const last: { epoch: number; seq: number } | undefined = await trx('answer')
		.where({ sitting_id: sittingId })
		.orderBy([
			{ column: 'epoch', order: 'desc' },
			{ column: 'seq', order: 'desc' }
		])
		.first('epoch', 'seq');
	const rows = answers.map(({ questionId, value }, i) => {
		const { marked = false, struck = [], inViewMs = 0 } = before.get(questionId) ?? {};
		return {
			sitting_id: sittingId,
			// After all that any device has sent; what one had not sent yet is kept beside it.
			epoch: last?.epoch ?? 1,
			seq: (last?.seq ?? 0) + 1 + i,
			question_id: questionId,
			value: JSON.stringify({ value, marked, struck }),
			in_view_ms: inViewMs,
			received_at: now,
			late: 0 as const,
			kept_because: null
		};
	});
	await appendAnswers(trx, rows, standingRow, now);
}
