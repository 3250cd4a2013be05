import { asDrawn } from './calculated';
import type { FormQuestion, Question } from './question';

/** A question as somebody got it: a calculated one is a numeric one then. */
export type DealtQuestion = Exclude<Question, { kind: 'calculated' }>;

/** A question of the paper as it was dealt: of a calculated one, with the numbers of that form and their answer. */
export function asDealt(question: Question, dealt: FormQuestion): DealtQuestion {
	return question.kind === 'calculated' ? asDrawn(question, dealt.drawn ?? {}) : question;
}
