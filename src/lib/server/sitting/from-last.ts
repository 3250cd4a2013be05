import type { Form } from '$core/paper';
import { appendAnswers, type AnswerRow, type Query, type StandingRow } from '../db';

/** Before any device has a number, which begin at 1: whatever a device sends stands over what came from the attempt before. */
const NO_DEVICE = 0;

/**
 * For practice: a further attempt has the form of the one before it, and what was answered there stands already. Files that
 * were handed over stay with their own attempt. @returns false: there is none before it
 */
export async function startFromLast(trx: Query, sittingId: string, now: number): Promise<boolean> {
	const before = await trx('sitting')
		.join('form', 'form.sitting_id', 'sitting.id')
		.where({ next_attempt_id: sittingId })
		.first('sitting.id', 'form.form');
	if (!before) return false;
	await trx('form').insert({ sitting_id: sittingId, form: before.form });
	const { questions }: Form = JSON.parse(before.form);
	const files = new Set(questions.filter(({ kind }) => kind === 'upload').map(({ id }) => id));
	const standing: StandingRow[] = await trx('answer_standing').where({ sitting_id: before.id }).orderBy('question_id');
	const taken = standing.filter((row) => !files.has(row.question_id));
	const rows = taken.map(({ question_id, value, in_view_ms }, i): AnswerRow => {
		const place = { sitting_id: sittingId, epoch: NO_DEVICE, seq: i + 1, question_id };
		return { ...place, value, in_view_ms, received_at: now, late: 0, kept_because: null };
	});
	const blank = new Map(taken.map((row) => [row.question_id, row]));
	await appendAnswers(
		trx,
		rows,
		({ sitting_id, question_id, epoch, seq, value, in_view_ms, late }) => ({
			sitting_id,
			question_id,
			epoch,
			seq,
			value,
			in_view_ms,
			late,
			blank: blank.get(question_id)!.blank,
			marked: blank.get(question_id)!.marked
		}),
		now
	);
	return true;
}
