import type { Question } from './question';

/** Minutes a question takes, by common practice: a minute for a choice is tight, reckoning takes longer. */
const USUAL_MINUTES: Record<Question['kind'], number> = {
	true_false: 1,
	single: 1.5,
	multiple: 2,
	matching: 2.5,
	ordering: 2.5,
	fill_in: 2,
	short: 2,
	numeric: 2.5,
	calculated: 2.5,
	essay: 15,
	upload: 10
};

/** Minutes that a question is expected to take: its author's, else its kind's usual. */
export function minutesNeeded(question: Question): number {
	return question.seconds === undefined ? USUAL_MINUTES[question.kind] : question.seconds / 60;
}
