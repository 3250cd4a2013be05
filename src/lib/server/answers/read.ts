import type { AnswerValue } from '$core/paper';
import type { Query } from '../db';

/** An answer as it stands. */
export type StandingAnswer = {
	questionId: string;
	value: AnswerValue;
	marked: boolean;
	struck: string[];
	inViewMs: number;
	late: boolean;
};

type Row = { sitting_id: string; question_id: string; value: string; in_view_ms: number; late: number };

/** The answers that stand, by sitting, the one touched last at the end. */
export async function standingAnswers(db: Query, sittingIds: string[]): Promise<Map<string, StandingAnswer[]>> {
	const rows: Row[] = await db('answer_standing').whereIn('sitting_id', sittingIds).orderBy(['epoch', 'seq']);
	const bySitting = new Map<string, StandingAnswer[]>();
	for (const row of rows) {
		const list = bySitting.get(row.sitting_id) ?? [];
		list.push({
			...JSON.parse(row.value),
			questionId: row.question_id,
			inViewMs: row.in_view_ms,
			late: Boolean(row.late)
		});
		bySitting.set(row.sitting_id, list);
	}
	return bySitting;
}
