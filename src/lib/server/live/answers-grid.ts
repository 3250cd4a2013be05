import { groupBy } from '$core/group-by';
import { isBlank, type AnswerValue, type Form } from '$core/paper';
import type { GridRow } from '$core/room';
import { answerRevisions, type Query } from '../db';
import { mapInParts } from '../event-loop';

type Standing = { sitting_id: string; question_id: string; value: string };

const sittingOf = (row: { sitting_id: string }) => row.sitting_id;

/** So many forms and their answers are read before everything else has its turn. */
const AT_ONCE = 25;

/** Who has answered what, in the order in which each sees the questions; no answer itself is told. */
export async function drawGrid(db: Query, sessionId: string, only?: string[]): Promise<GridRow[]> {
	const ids: string[] = await db('form')
		.join('roster', 'roster.sitting_id', 'form.sitting_id')
		.where({ session_id: sessionId })
		.modify((query) => {
			if (only) query.whereIn('form.sitting_id', only);
		})
		.pluck('form.sitting_id');
	return mapInParts(ids, AT_ONCE, (part) => rowsOf(db, part));
}

async function rowsOf(db: Query, ids: string[]): Promise<GridRow[]> {
	const forms: { sitting_id: string; form: string }[] = await db('form').whereIn('sitting_id', ids);
	const standing = groupBy((await db('answer_standing').whereIn('sitting_id', ids)) as Standing[], sittingOf);
	const revisions = groupBy(await answerRevisions(db, ids), sittingOf);
	return forms.map(({ sitting_id, form }) => {
		const answers = new Map(
			(standing.get(sitting_id) ?? []).map((row) => [
				row.question_id,
				JSON.parse(row.value) as { value: AnswerValue; marked: boolean }
			])
		);
		const times = new Map((revisions.get(sitting_id) ?? []).map((row) => [row.question_id, row.times]));
		return {
			sittingId: sitting_id,
			cells: (JSON.parse(form) as Form).questions.map((question) => {
				const answer = answers.get(question.id);
				const isAnswered = answer !== undefined && !isBlank(answer.value);
				return {
					answered: isAnswered,
					marked: answer?.marked ?? false,
					changed: (times.get(question.id) ?? 0) > 1
				};
			})
		};
	});
}
