import type { AnswerValue } from './answer';
import type { FormQuestion } from './question';

/** What something of a question is called on the device of one candidate. Without `part`: the question itself. */
export type Name = (questionId: string, part?: string) => string;

/**
 * A question under names that are one candidate's own: two who compare what their browsers hold do not find the same
 * question, or the same choice, by its name, and no name tells where it stood or what is right.
 */
export function renameQuestion(question: FormQuestion, name: Name): FormQuestion {
	const of = (part: string) => name(question.id, part);
	const list = (parts: { id: string; text: string }[]) => parts.map(({ id, text }) => ({ id: of(id), text }));
	// A gap stands in the words by its name.
	const stem = (text: string) =>
		(question.gaps ?? []).reduce((all, gap) => all.replaceAll(`[${gap}]`, `[${of(gap)}]`), text);
	const { drawn: _, ...shown } = question;
	const { choices, items, matches, gaps, inOther, stimulus } = shown;
	return {
		...shown,
		id: name(question.id),
		stem: stem(question.stem),
		...(choices && { choices: list(choices) }),
		...(items && { items: list(items) }),
		...(matches && { matches: list(matches) }),
		...(gaps && { gaps: gaps.map(of) }),
		...(stimulus && { stimulus: { ...stimulus, id: name(stimulus.id) } }),
		...(inOther && {
			inOther: Object.fromEntries(
				Object.entries(inOther).map(([language, { stem: words, texts }]) => [
					language,
					{
						stem: stem(words),
						...(texts && { texts: Object.fromEntries(Object.entries(texts).map(([id, text]) => [of(id), text])) })
					}
				])
			)
		})
	};
}

/** An answer under other names; what was typed stays as it is. */
export function renameValue(
	kind: FormQuestion['kind'],
	value: AnswerValue,
	name: (part: string) => string
): AnswerValue {
	switch (kind) {
		case 'single':
			return typeof value === 'string' ? name(value) : value;
		case 'multiple':
		case 'ordering':
			return Array.isArray(value) ? value.map(name) : value;
		case 'matching':
		case 'fill_in': {
			if (typeof value !== 'object' || value === null || Array.isArray(value)) return value;
			const isMatching = kind === 'matching';
			return Object.fromEntries(
				Object.entries(value).map(([part, to]) => [name(part), isMatching && to !== '' ? name(to) : to])
			);
		}
		default:
			return value;
	}
}
