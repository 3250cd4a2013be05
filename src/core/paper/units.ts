import type { Question } from './question';

/**
 * Questions in units, each of which is dealt as a whole: a question, and those that follow it in their order. A
 * question that follows one which is missing here, or which itself follows another, is a unit by itself.
 */
export function unitsOf(questions: Question[]): Question[][] {
	const units = new Map<string, Question[]>();
	const leads = new Set(questions.filter(({ follows }) => follows === undefined).map(({ id }) => id));
	const isLed = ({ follows }: Question) => follows !== undefined && leads.has(follows);
	for (const question of questions) if (!isLed(question)) units.set(question.id, [question]);
	for (const question of questions) if (isLed(question)) units.get(question.follows!)!.push(question);
	return [...units.values()];
}

/** The question that each of these follows, if it is among them. */
export function leadOf(questions: Question[], { follows }: Pick<Question, 'follows'>): Question | null {
	if (follows === undefined) return null;
	return questions.find((one) => one.id === follows && one.follows === undefined) ?? null;
}
