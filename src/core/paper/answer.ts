import type { FormQuestion } from './question';

/**
 * What a candidate gave. null: blank, or cleared again. By kind of question:
 * true/false a boolean; single a choice's id; numeric, short and essay the text as typed; multiple the chosen ids;
 * ordering the ids in their order; matching the match by item, fill in the text by gap; upload the names that the server gave its files.
 */
export type AnswerValue = boolean | string | string[] | Record<string, string> | null;

/** Whether nothing was given: blank and wrong are two things. */
export function isBlank(value: AnswerValue): boolean {
	if (value === null) return true;
	if (typeof value === 'boolean') return false;
	if (typeof value === 'string') return value.trim() === '';
	return Array.isArray(value) ? value.length === 0 : Object.values(value).every((part) => part.trim() === '');
}

type Names = { id: string }[];
/** What of a question says which answers it takes. */
export type AnswerShape = Pick<FormQuestion, 'id' | 'kind' | 'gaps' | 'most'> & {
	choices?: Names;
	items?: Names;
	matches?: Names;
};

/** Without any words, for where very many are kept. */
export function answerShape({ id, kind, choices, items, matches, gaps, most }: FormQuestion): AnswerShape {
	const names = (list?: Names) => list?.map(({ id }) => ({ id }));
	return { id, kind, choices: names(choices), items: names(items), matches: names(matches), gaps, most };
}

/** Whether a value is of the shape that a question of this kind asks for, and names only what is on the form. */
export function fitsQuestion(question: AnswerShape, value: AnswerValue): boolean {
	if (value === null) return true;
	const known = (list: { id: string }[] | undefined, id: string) => list?.some((each) => each.id === id) ?? false;
	switch (question.kind) {
		case 'true_false':
			return typeof value === 'boolean';
		case 'single':
			return typeof value === 'string' && known(question.choices, value);
		case 'multiple':
		case 'ordering':
			return Array.isArray(value) && value.every((id) => known(question.choices, id));
		case 'matching':
			return (
				isParts(value) &&
				Object.entries(value).every(
					([item, to]) => known(question.items, item) && (to === '' || known(question.matches, to))
				)
			);
		case 'fill_in':
			return isParts(value) && Object.keys(value).every((gap) => question.gaps!.includes(gap));
		case 'numeric':
		case 'short':
			return typeof value === 'string' && value.length <= LONGEST_LINE;
		case 'essay':
			return typeof value === 'string';
		case 'upload':
			return Array.isArray(value) && value.length <= question.most! && value.every((file) => UPLOAD.test(file));
	}
}

/** What the server calls a file that a candidate handed over. */
const UPLOAD = /^[A-Za-z0-9_-]{21}$/;

/** Signs that fit into a line of text. */
export const LONGEST_LINE = 500;
/** The longest text that somebody writes, in UTF-16 units as fields count them. */
export const LONGEST_TEXT = 40_000;

function isParts(value: AnswerValue): value is Record<string, string> {
	return typeof value === 'object' && value !== null && !Array.isArray(value);
}
