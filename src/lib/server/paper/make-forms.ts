import type { StaffMember } from '$core/access';
import { questionsOf, partLetter, type Paper } from '$core/paper';
import { fail } from '$core/problem';
import type { Actor } from '$core/sitting';
import { divide } from '../bank';
import type { House, Writing } from '../house';
import { draftFor, makeDraft } from './drafts';

export type MadeForm = { id: string; title: string; points: number; expected: number; minutes: number };

/**
 * Divides a paper's questions into forms that are as alike as can be, each a paper of its own to be read and frozen; the
 * paper itself stays. No question is in two.
 * @throws ProblemError not_taken, title_taken
 */
export async function makeForms(
	otium: Writing & Pick<House, 'threads'>,
	staff: StaffMember,
	by: Actor,
	id: string,
	{ forms, each }: { forms: number; each: number },
	signal?: AbortSignal
): Promise<MadeForm[]> {
	const { content, siteId } = await draftFor(otium.db, staff, id);
	const questions = questionsOf(content);
	if (forms * each > questions.length)
		fail('not_taken', {
			message: `${forms} forms of ${each} take ${forms * each} questions, and this paper has ${questions.length}.`
		});
	const titles = Array.from({ length: forms }, (_, f) => `${content.title}, form ${partLetter(f)}`.slice(0, 200));
	const taken = await otium.db('paper_draft').whereIn('title', titles).first('title');
	if (taken) fail('title_taken', { message: `There is a paper called ${taken.title} already.` });
	const divided = await divide(otium, { questions, forms, each }, signal);
	if (!divided) fail('not_taken', { message: 'No forms were found in time. Ask for fewer.' });
	const made: MadeForm[] = [];
	for (const [f, title] of titles.entries()) {
		const paper = formOf(content, divided.ids[f]);
		const formId = await makeDraft(otium, staff, by, { title, siteId, from: null, content: paper });
		made.push({ id: formId, title, ...divided.figures[f] });
	}
	return made;
}

/** The paper with these questions alone, in its own parts and order; a part that dealt some deals all that are left. */
function formOf({ plan: _, ...paper }: Paper, ids: string[]): Paper {
	const parts = paper.parts
		.map((part) => ({ ...part, draw: null, questions: part.questions.filter(({ id }) => ids.includes(id)) }))
		.filter(({ questions }) => questions.length > 0);
	return { ...paper, parts };
}
