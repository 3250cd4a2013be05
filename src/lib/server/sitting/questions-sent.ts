import type { Form, FormQuestion, Picture } from '$core/paper';
import { forwardBy, mayBeSent } from '$core/session';
import type { QuestionTime } from '$core/time';
import { transact, type Query } from '../db';
import type { Acting } from '../house';
import { paperVersion } from '../paper';
import { formOf } from './begin';
import { refreshDerivedColumns } from './derived-columns';
import { questionFor, type Loaded } from './load';
import { OwnIds } from './own-ids';
import { noteShown } from './question-shown';

/** The questions that a candidate's device may have now, with what belongs to them. */
export type QuestionsSent = {
	questions: FormQuestion[];
	pictures: Record<string, Picture>;
	/** The place of the first of them on the form, from 0. */
	from: number;
};

/** What stays in the house. */
type OfTheHouse = { form: Form; ids: OwnIds };

/**
 * What of the form may leave for the device of somebody who has begun: under its own names, without hints that the rules
 * do not allow, and page by page where nobody may go back.
 */
export async function questionsSent(db: Query, one: Loaded): Promise<QuestionsSent & OfTheHouse> {
	const { id } = one.sitting;
	const form = (await formOf(db, id))!;
	const ids = new OwnIds(db, id, form.questions);
	const { tools, movement } = one.session.rules;
	// How far somebody has come matters only where they can't come back.
	const touched: string[] =
		forwardBy(movement) === null ? [] : await db('answer_standing').where({ sitting_id: id }).pluck('question_id');
	const places = new Map(form.questions.map((question, place) => [question.id, place]));
	const reached = touched.map((questionId) => places.get(questionId) ?? 0);
	const { from, to } = mayBeSent(movement, form.questions.length, reached);
	const sent = form.questions.slice(from, to).map((question) => ids.show(question));
	const { pictures = {} } = (await paperVersion(db, one.paperId)).content;
	const shown = new Set(sent.map((question) => question.picture));
	return {
		ids,
		form,
		questions: tools.hints ? sent : sent.map(({ hint: _, ...question }) => question),
		pictures: Object.fromEntries(Object.entries(pictures).filter(([name]) => shown.has(name))),
		from
	};
}

/** What of the form leaves for the screen now, with the time that runs for it; null: it has none of its own. */
export async function showQuestions(
	otium: Pick<Acting, 'db' | 'now'>,
	one: Loaded
): Promise<QuestionsSent & OfTheHouse & { question: QuestionTime | null }> {
	const sent = await questionsSent(otium.db, one);
	const isNew = one.session.rules.timing.questionSeconds !== null && sent.from > (one.shown?.place ?? -1);
	return { ...sent, question: isNew ? await startQuestion(otium, one, sent.from) : one.question };
}

/** A question that has not been shown yet leaves for a device: its own time runs from now. */
async function startQuestion({ db, now }: Pick<Acting, 'db' | 'now'>, one: Loaded, place: number) {
	const at = now();
	const { id } = one.sitting;
	await transact(db, async (trx) => {
		await noteShown(trx, id, { place, at });
		await refreshDerivedColumns(trx, [id], at);
	});
	return questionFor({ ...one, shown: { place, at } }, at);
}
