import type { Paper, Question } from './question';
import { unitsOf } from './units';

/** One of several forms of a paper: these questions of it, and no others. */
export type PaperForm = {
	name: FormLetter;
	/** The ids of its questions; what follows one of them comes with it. They stand in the paper's order; what was taken out of the paper since is in no form. */
	questions: string[];
};

/** More would be forms of too few questions; and so many neighbours nobody has. */
export const FORM_LETTERS = ['A', 'B', 'C', 'D', 'E', 'F'] as const;
export type FormLetter = (typeof FORM_LETTERS)[number];

/** How its form comes to each candidate: by chance, by where they belong or sit, or one for all. */
export const FORM_RULES = ['dealt', 'site', 'group', 'seat', ...FORM_LETTERS] as const;
export type FormRule = (typeof FORM_RULES)[number];

/** What decides which form somebody gets. What is not known is null, and then their seed decides. */
export type FormPlace = {
	seed: number;
	/** Which of the house's sites it is, from 0. */
	site: number | null;
	/** Which of the session's groups they belong to, from 0. */
	group: number | null;
	/** `B3` */
	seat: string | null;
};

/** The part of a paper that a form is dealt from: a whole paper, or its questions of one form, of which all are dealt. */
export function inForm(paper: Paper, name: FormLetter | null): Paper {
	const form = paper.forms?.find((one) => one.name === name);
	if (!form) return paper;
	const has = new Set(form.questions);
	const parts = paper.parts
		.map(({ title, questions }) => ({
			title,
			draw: null,
			questions: unitsOf(questions)
				.filter(([{ id }]) => has.has(id))
				.flat()
		}))
		.filter(({ questions }) => questions.length > 0);
	return { ...paper, parts };
}

/** Each form of a paper with its questions, in the paper's order. Empty: it has no forms, and is dealt as a whole. */
export function formsOf(paper: Paper): { name: FormLetter; questions: Question[] }[] {
	return (paper.forms ?? []).map(({ name }) => ({
		name,
		questions: inForm(paper, name).parts.flatMap(({ questions }) => questions)
	}));
}

/** The forms with a question put into one of them, or taken out of it if it is there. */
export function putIn(forms: PaperForm[], name: FormLetter, id: string): PaperForm[] {
	return forms.map((form) => {
		if (form.name !== name) return form;
		const { questions } = form;
		return { name, questions: questions.includes(id) ? questions.filter((one) => one !== id) : [...questions, id] };
	});
}

/** Which of a paper's forms a candidate gets; null: it has none. Of a form that it does not have, the seed decides. */
export function formFor({ forms }: Pick<Paper, 'forms'>, rule: FormRule, place: FormPlace): FormLetter | null {
	if (!forms || forms.length === 0) return null;
	const named = forms.find(({ name }) => name === rule);
	if (named) return named.name;
	const by = { site: place.site, group: place.group, seat: seatNumber(place.seat, forms.length) };
	const index = rule === 'site' || rule === 'group' || rule === 'seat' ? by[rule] : null;
	// As an unsigned number: a remainder keeps its sign.
	return forms[(index ?? place.seed >>> 0) % forms.length].name;
}

/**
 * A number by seat that differs, by the number of forms, from that of the seats to the left and right, before and behind;
 * with four forms or more also from those across a corner. With fewer that can't be: four seats in a square all touch.
 */
function seatNumber(seat: string | null, forms: number): number | null {
	const [, letters, column] = /^([A-Z]+)(\d+)$/.exec(seat ?? '') ?? [];
	if (letters === undefined) return null;
	const row = letters.charCodeAt(0) - 65 + 26 * (letters.length - 1);
	return (forms < 4 ? row : 2 * row) + Number(column);
}
