import type { StaffMember } from '$core/access';
import { FORM_LETTERS, questionsOf, type PaperForm } from '$core/paper';
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
	const questions = questionsOf(content);
	if (forms * each > questions.length)
		fail('not_taken', {
			message: `${forms} forms of ${each} take ${forms * each} questions, and this paper has ${questions.length}.`
		});
	const divided = await divide(otium, { questions, forms, each }, signal);
	if (!divided) fail('not_taken', { message: 'No forms were found in time. Ask for fewer.' });
	return divided.ids.map((ids, i) => ({ name: FORM_LETTERS[i], questions: ids }));
}
