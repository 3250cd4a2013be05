import { counted } from '$core/names';
import { type HandPlan, handStanding } from '$core/by-hand';
import type { Question } from '$core/paper';
import { fail } from '$core/problem';
import { type Query, transact } from '../db';
import type { Writing } from '../house';
import { appendToLogbook, type NewEntry } from '../logbook';
import { answerOfKey, labelOf } from './markers-work';
import { type Asked, handQuestions, planFor } from './by-hand';
import { isReleased } from './tell-changed';

export type NewMark = {
	id: string;
	key: string;
	points: number;
	criteria: Record<string, number>;
	comment: string;
	tookMs: number;
};

/**
 * Gives a mark. Sent twice it counts once; where somebody else has marked the answer in between, nothing is written over.
 * @throws ProblemError when it is not this person's to mark, or not so many points
 */
export async function giveMark(otium: Writing, marker: NewEntry['by'], asked: Asked, mark: NewMark): Promise<void> {
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		if (await trx('hand_mark').where({ id: mark.id }).first('id')) return;
		const question = (await handQuestions(trx, asked.paperId)).find(({ id }) => id === asked.questionId);
		if (!question) fail('not_found');
		const { plan } = await planFor(trx, asked);
		const one = await answerOfKey(trx, asked, mark.key);
		if (!one) fail('not_found');
		const standing = handStanding(plan, asked.questionId, one.sittingId, one.marks);
		if (standing.state === 'settled' || !standing.next.includes(marker.id))
			fail('not_taken', {
				message: 'This answer is not yours to mark now: it has been marked, or goes to somebody else.',
				instead: 'Go on with the next one.'
			});
		const points = pointsOf(mark, plan, question);
		await trx('hand_mark').insert({
			id: mark.id,
			administration_id: asked.administrationId,
			sitting_id: one.sittingId,
			question_id: asked.questionId,
			marker: marker.id,
			points,
			criteria: JSON.stringify(mark.criteria),
			comment: mark.comment,
			took_ms: Math.min(mark.tookMs, 3_600_000),
			at
		});
		await appendToLogbook(trx, [
			{
				at,
				by: marker,
				kind: 'marked',
				sittingId: one.sittingId,
				body: { questionId: asked.questionId, points, turn: standing.state }
			}
		]);
	});
}

function pointsOf(mark: NewMark, { rubric }: HandPlan, question: Question): number {
	const points =
		rubric.length === 0 ? mark.points : rubric.reduce((sum, { id }) => sum + (mark.criteria[id] ?? NaN), 0);
	const isWithin = rubric.every(({ id, points: most }) => mark.criteria[id] >= 0 && mark.criteria[id] <= most);
	if (Number.isNaN(points) || !isWithin || points < 0 || points > question.points)
		fail('not_taken', {
			message:
				rubric.length === 0
					? `This question is worth 0 to ${counted(question.points, 'point')}.`
					: 'Give points for every criterion, and no more than it is worth.'
		});
	return points;
}

type Given = {
	marker: string;
	administration_id: string;
	paper_id: string;
	sitting_id: string;
	question_id: string;
	taken_back_at: number | null;
};

/**
 * Takes a mark back; it stays in the record. One's own without more, until results are released; another's, and any after
 * that, by a named act with a reason.
 * @param why null: it is one's own
 * @throws ProblemError not_yours; not_taken when a marker alone would change what candidates have been told
 */
export async function takeMarkBack(otium: Writing, by: NewEntry['by'], id: string, why: string | null): Promise<void> {
	const at = otium.now();
	await transact(otium.db, async (trx) => {
		const row: Given | undefined = await trx('hand_mark')
			.join('sitting', 'sitting.id', 'hand_mark.sitting_id')
			.where({ 'hand_mark.id': id })
			.first('marker', 'hand_mark.administration_id', 'paper_id', 'sitting_id', 'question_id', 'taken_back_at');
		if (!row) fail('not_found');
		if (row.taken_back_at !== null) return;
		if (why === null && row.marker !== by.id) fail('not_yours');
		if (why === null && (await isReleased(trx, row.administration_id, row.paper_id)))
			fail('not_taken', {
				message: 'Results of this paper have been released: a mark is no longer taken back by its marker alone.',
				instead: 'Ask a coordinator. They can take it back under Marking, with a reason.'
			});
		await trx('hand_mark').where({ id }).update({ taken_back_at: at, taken_back_by: by.id, taken_back_why: why });
		await appendToLogbook(trx, [
			{
				at,
				by,
				kind: 'mark_taken_back',
				sittingId: row.sitting_id,
				body: { questionId: row.question_id, mark: id, why }
			}
		]);
	});
}

/** A mark as whoever oversees the marking sees it: by whom, and still without a word about whose answer it is. */
export type OverseenMark = { id: string; label: string; marker: string; points: number; at: number; comment: string };

/** All marks of a question that stand, latest first. */
export async function marksOf(db: Query, { administrationId, questionId }: Asked): Promise<OverseenMark[]> {
	const rows: { id: string; sitting_id: string; name: string; points: number; at: number; comment: string }[] =
		await db('hand_mark')
			.leftJoin('staff', 'staff.id', 'hand_mark.marker')
			.where({ administration_id: administrationId, question_id: questionId })
			.whereNull('taken_back_at')
			.orderBy('at', 'desc')
			.limit(500)
			.select('hand_mark.id', 'sitting_id', 'staff.name', 'points', 'at', 'comment');
	return rows.map(({ sitting_id, name, ...row }) => ({
		...row,
		marker: name,
		label: labelOf(db, sitting_id, questionId)
	}));
}
