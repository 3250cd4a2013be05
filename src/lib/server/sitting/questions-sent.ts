import type { FormQuestion, Picture } from '$core/paper';
import { forwardBy, mayBeSent } from '$core/session';
import type { Query } from '../db';
import { paperVersion } from '../paper';
import { formOf } from './begin';
import type { Loaded } from './load';
import { OwnIds } from './own-ids';

/** The questions that a candidate's device may have now, with what belongs to them. */
export type QuestionsSent = { questions: FormQuestion[]; pictures: Record<string, Picture> };

/**
 * What of the form may leave for the device of somebody who has begun: under its own names, without hints that the rules
 * do not allow, and page by page where nobody may go back.
 */
export async function questionsSent(db: Query, one: Loaded): Promise<QuestionsSent & { ids: OwnIds }> {
	const { id } = one.sitting;
	const form = (await formOf(db, id))!;
	const ids = new OwnIds(db, id, form);
	const { tools, movement } = one.session.rules;
	// How far somebody has come matters only where they can't come back.
	const touched: string[] =
		forwardBy(movement) === null ? [] : await db('answer_standing').where({ sitting_id: id }).pluck('question_id');
	const places = new Map(form.questions.map((question, place) => [question.id, place]));
	const reached = touched.map((questionId) => places.get(questionId) ?? 0);
	const { from, to } = mayBeSent(movement, form.questions.length, reached);
	const sent = ids.shown.slice(from, to);
	const { pictures = {} } = (await paperVersion(db, one.paperId)).content;
	const shown = new Set(sent.map((question) => question.picture));
	return {
		ids,
		questions: tools.hints ? sent : sent.map(({ hint: _, ...question }) => question),
		pictures: Object.fromEntries(Object.entries(pictures).filter(([name]) => shown.has(name)))
	};
}
