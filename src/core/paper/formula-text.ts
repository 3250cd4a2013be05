import { formulaAt } from './rich-text';

/** A formula as it is drawn (HTML with MathML beside it; null: it is shown as it is written) and read aloud. */
export type DrawnFormula = { html: string | null; words: string };

/** A page of a derivation; drawing it takes a fraction of a second. */
const LONGEST = 1_500;
/** All formulas of one question together. */
const MOST_OF_QUESTION = 8_000;
/**
 * What makes a formula write itself: a name that stands for a text, over and over, is a hundred thousand signs in a
 * handful. TeX's own ways to define (The TeXbook, chapter 20), LaTeX's and those of KaTeX.
 */
const DEFINES =
	/\\(?:[egx]?def|(?:re)?newcommand|providecommand|(?:future)?let|global|long|expandafter|noexpand|csname|newenvironment|renewenvironment|DeclareMathOperator|char|htmlClass|htmlId|htmlStyle|htmlData|includegraphics|href|url)(?![A-Za-z])/;

/** The formulas in a text, in their order. */
export function formulasIn(text: string): string[] {
	const found: string[] = [];
	for (let at = 0; at < text.length; at++) {
		if (text[at] === '\\') {
			at++;
			continue;
		}
		const tex = formulaAt(text, at);
		if (tex === null) continue;
		found.push(tex);
		at += tex.length + 1;
	}
	return found;
}

/** How KaTeX draws: it trusts nothing in the text, and shows what it can't read as it is. */
export const AS_DRAWN = { throwOnError: false, trust: false, output: 'htmlAndMathml' } as const;

/** Every text in a value, however deep. */
export function textsIn(value: unknown): string[] {
	if (typeof value === 'string') return [value];
	return value !== null && typeof value === 'object' ? Object.values(value).flatMap(textsIn) : [];
}

/** Why a formula is not drawn; null: it is. Such a one is shown as it is written. */
export function formulaFault(tex: string): string | null {
	const defining = DEFINES.exec(tex);
	if (defining)
		return `A formula can’t define or fetch anything of its own: take out ${defining[0]} and write what it stands for.`;
	return tex.length > LONGEST
		? `A formula of ${tex.length} letters takes too long to draw; the most is ${LONGEST}. Split it.`
		: null;
}

/** Why the formulas in all texts of a question can't be kept; null: they can. */
export function formulasFault(texts: Iterable<string>): string | null {
	let letters = 0;
	for (const text of texts)
		for (const tex of text.includes('$') ? formulasIn(text) : []) {
			const fault = formulaFault(tex);
			if (fault) return fault;
			letters += tex.length;
		}
	return letters > MOST_OF_QUESTION
		? `The formulas of this question have ${letters} letters; the most is ${MOST_OF_QUESTION}. Split the question.`
		: null;
}
