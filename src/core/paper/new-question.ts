import { namesIn } from './calculated';
import type { Choice, Parameter, Question, QuestionKind } from './question';

/** What each kind is called by those who write. */
export const QUESTION_KIND_NAMES: Record<QuestionKind, string> = {
	single: 'Single choice',
	multiple: 'Multiple choice',
	true_false: 'True or false',
	numeric: 'Number',
	calculated: 'Calculated',
	short: 'Short answer',
	fill_in: 'Fill in',
	matching: 'Matching',
	ordering: 'Ordering',
	essay: 'Essay',
	upload: 'Photo or PDF'
};
export const QUESTION_KINDS = Object.keys(QUESTION_KIND_NAMES) as QuestionKind[];

/** A question of that kind with nothing in it yet. @param newId a new id for it and for each of its choices */
export function newQuestion(kind: QuestionKind, newId: () => string): Question {
	const shared = { id: newId(), stem: '', points: 1, topic: '' };
	const choices = (count: number): Choice[] => Array.from({ length: count }, () => ({ id: newId(), text: '' }));
	switch (kind) {
		case 'true_false':
			return { ...shared, kind, answer: true };
		case 'single':
			return { ...shared, kind, choices: choices(4), answer: '' };
		case 'multiple':
			return { ...shared, kind, choices: choices(4), answer: [], partial: true };
		case 'matching': {
			const [items, matches] = [choices(3), choices(3)];
			const answer = Object.fromEntries(items.map(({ id }, i) => [id, matches[i].id]));
			return { ...shared, kind, items, matches, answer, partial: true };
		}
		case 'ordering': {
			const steps = choices(3);
			return { ...shared, kind, choices: steps, answer: steps.map(({ id }) => id), partial: true };
		}
		case 'fill_in':
			return { ...shared, kind, gaps: [], partial: true };
		case 'short':
			return { ...shared, kind, accepted: [] };
		case 'numeric':
			return { ...shared, kind, answer: 0, tolerance: { kind: 'absolute', amount: 0 }, unit: '' };
		case 'calculated':
			return {
				...shared,
				kind,
				parameters: [],
				conditions: [],
				formula: '',
				tolerance: { kind: 'relative', amount: 0.01 },
				unit: ''
			};
		case 'essay':
			return { ...shared, kind, words: null };
		case 'upload':
			return { ...shared, kind, most: 4 };
	}
}

/** A question whose key names nothing that is no longer there: a choice that was removed can't be right. */
export function withoutStaleKey(question: Question): Question {
	const has = (list: Choice[], id: string) => list.some((choice) => choice.id === id);
	switch (question.kind) {
		case 'single':
			return has(question.choices, question.answer) ? question : { ...question, answer: '' };
		case 'multiple':
			return { ...question, answer: question.answer.filter((id) => has(question.choices, id)) };
		case 'ordering':
			return { ...question, answer: question.choices.map(({ id }) => id) };
		case 'matching': {
			const { items, matches, answer } = question;
			const kept = Object.entries(answer).filter(([item, match]) => has(items, item) && has(matches, match));
			return { ...question, answer: Object.fromEntries(kept) };
		}
		default:
			return question;
	}
}

/** The parameters that a stem names, `{so}`, each as it was before; a new one goes from 1 to 10. */
export function parametersOf(stem: string, before: Parameter[]): Parameter[] {
	return namesIn(stem).map(
		(name) => before.find((parameter) => parameter.name === name) ?? { name, from: 1, to: 10, step: 1 }
	);
}

/** The gaps that a stem names, `[so]`, each with what was accepted there before. */
export function gapsOf(
	stem: string,
	before: { id: string; accepted: string[] }[]
): { id: string; accepted: string[] }[] {
	const names = new Set([...stem.matchAll(/\[([A-Za-z0-9]{1,12})\]/g)].map(([, name]) => name));
	return [...names].map((id) => before.find((gap) => gap.id === id) ?? { id, accepted: [] });
}

/** What asks for the working of a question: dealt with it, right behind it, and marked by hand. */
export function askForWorking({ id, follows, topic }: Question, newId: () => string): Question {
	return {
		...newQuestion('essay', newId),
		follows: follows ?? id,
		topic,
		stem: 'Show how you came to your answer.'
	};
}
