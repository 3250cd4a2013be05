import { createHash } from 'node:crypto';
import { groupBy } from '$core/group-by';
import { NOTES } from '$core/paper';
import type { Work } from '$core/sitting';
import type { Query } from '../db';

type Row = { sitting_id: string; question_id: string; value: string; blank: number };

/** What counts of each sitting's answers now, without notes; by sitting, and empty where there are none. */
export async function workOf(db: Query, sittingIds: string[]): Promise<Map<string, Work>> {
	if (sittingIds.length === 0) return new Map();
	const rows: Row[] = await db('answer_standing')
		.whereIn('sitting_id', sittingIds)
		.whereNot({ question_id: NOTES })
		.orderBy(['sitting_id', 'question_id'])
		.select('sitting_id', 'question_id', 'value', 'blank');
	const bySitting = groupBy(rows, (row) => row.sitting_id);
	return new Map(
		sittingIds.map((id) => {
			const own = bySitting.get(id) ?? [];
			const text = JSON.stringify(own.map((row) => [row.question_id, valueOf(row.value)]));
			const digest = createHash('sha256').update(text).digest('base64url');
			return [id, { answers: own.filter((row) => !row.blank).length, digest }];
		})
	);
}

/** Without what was marked to be looked at again, or struck out: that may go on after the end and changes no answer. */
function valueOf(stored: string): unknown {
	return (JSON.parse(stored) as { value: unknown }).value;
}
