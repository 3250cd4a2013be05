import type { StaffMember } from '$core/access';
import { FORM_LETTERS, minutesNeeded, questionsOf, unitsOf, type PaperForm, type Question } from '$core/paper';
import { fail } from '$core/problem';
import { divide } from '../bank';
import type { House } from '../house';
import { draftFor } from './drafts';

/**
 * Divides a paper's questions into forms that are as alike as can be; no question is in two. Nothing is kept by it.
 * @throws ProblemError not_taken
 */
export async function divideForms(
	otium: Pick<House, 'db' | 'threads'>,
	staff: StaffMember,
	id: string,
	{ forms, each }: { forms: number; each: number },
	signal?: AbortSignal
): Promise<PaperForm[]> {
	const { content } = await draftFor(otium.db, staff, id);
	const units = unitsOf(questionsOf(content));
	const questions = units.map(asOne);
	if (forms * each > questions.length)
		fail('not_taken', {
			message: `${forms} forms of ${each} take ${forms * each} questions, and this paper has ${questions.length}.`
		});
	const divided = await divide(otium, { questions, forms, each }, signal);
	if (!divided) fail('not_taken', { message: 'No forms were found in time. Ask for fewer.' });
	return divided.ids.map((ids, i) => ({ name: FORM_LETTERS[i], questions: ids }));
}

/** A question that stands for those that follow it, too: it is worth what they are together, and takes as long. */
function asOne(unit: Question[]): Question {
	const [first] = unit;
	if (unit.length === 1) return first;
	const seconds = Math.round(60 * unit.reduce((sum, one) => sum + minutesNeeded(one), 0));
	return { ...first, seconds, points: unit.reduce((sum, { points }) => sum + points, 0) };
}
