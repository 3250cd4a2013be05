import { keyInWords } from './key-in-words';
import { gapsOf, newQuestion, parametersOf } from './new-question';
import type { Choice, Question, QuestionKind } from './question';
import { answerOf } from './read-text';

/** What of a question belongs to its kind alone; all else stays when the kind changes. */
const OF_A_KIND = [
	'kind',
	'answer',
	'choices',
	'items',
	'matches',
	'gaps',
	'accepted',
	'tolerance',
	'unit',
	'unsimplified',
	'parameters',
	'conditions',
	'formula',
	'words',
	'most',
	'partial',
	'inOther'
];

/**
 * A question as one of another kind, keeping what fits: choices stay choices, a right choice becomes what is accepted, a
 * key that reads as a number the number.
 * @param newId a new id for each choice that has to be made
 */
export function inKind(question: Question, kind: QuestionKind, newId: () => string): Question {
	if (question.kind === kind) return question;
	const shared = Object.fromEntries(Object.entries(question).filter(([name]) => !OF_A_KIND.includes(name)));
	const made = { ...newQuestion(kind, newId), ...shared } as Question;
	const choices = choicesOf(question, newId);
	const right = rightOf(question, choices);
	switch (made.kind) {
		case 'single':
			return choices.length > 0 ? { ...made, choices, answer: right[0] ?? '' } : made;
		case 'multiple':
			return choices.length > 0 ? { ...made, choices, answer: right } : made;
		case 'ordering':
			return choices.length > 0 ? { ...made, choices, answer: choices.map(({ id }) => id) } : made;
		case 'true_false':
			return { ...made, answer: !/^(false|no|wrong)\b/i.test(wordsOf(question, choices, right)) };
		case 'short':
			return { ...made, accepted: question.kind === 'fill_in' ? allGaps(question) : texts(question, choices, right) };
		case 'numeric': {
			const read = answerOf(texts(question, choices, right)[0] ?? '');
			return read?.kind === 'numeric' ? { ...made, ...read } : made;
		}
		case 'fill_in':
			return { ...made, gaps: gapsOf(made.stem, []) };
		case 'calculated':
			return { ...made, parameters: parametersOf(made.stem, []) };
		default:
			return made;
	}
}

function choicesOf(question: Question, newId: () => string): Choice[] {
	if ('choices' in question) return question.choices;
	if (question.kind === 'true_false') return ['True', 'False'].map((text) => ({ id: newId(), text }));
	if (question.kind === 'matching') return question.matches;
	return texts(question, [], []).map((text) => ({ id: newId(), text }));
}

function rightOf(question: Question, choices: Choice[]): string[] {
	switch (question.kind) {
		case 'single':
			return question.answer === '' ? [] : [question.answer];
		case 'multiple':
			return question.answer;
		case 'true_false':
			return [choices[question.answer ? 0 : 1].id];
		case 'short':
		case 'numeric':
			return choices.map(({ id }) => id);
		default:
			return [];
	}
}

/** What counts as right, in words. */
function texts(question: Question, choices: Choice[], right: string[]): string[] {
	switch (question.kind) {
		case 'short':
			return question.accepted.filter(Boolean);
		case 'numeric':
			return [`${question.answer}${question.unit ? ` ${question.unit}` : ''}`];
		case 'true_false':
			return [keyInWords(question)];
		default:
			return choices.filter(({ id }) => right.includes(id)).map(({ text }) => text);
	}
}

function wordsOf(question: Question, choices: Choice[], right: string[]): string {
	return texts(question, choices, right)[0] ?? '';
}

function allGaps({ gaps }: Extract<Question, { kind: 'fill_in' }>): string[] {
	return gaps.length === 1 ? gaps[0].accepted.filter(Boolean) : [];
}
