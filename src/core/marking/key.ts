import type { AnswerValue, DealtQuestion } from '../paper';

/** An answer that earns full points, as a candidate would give it. null: only a person can say (an essay, working on paper). */
export function rightAnswer(question: DealtQuestion): AnswerValue {
	switch (question.kind) {
		case 'numeric':
			return String(question.answer);
		case 'short':
			return question.accepted[0];
		case 'fill_in':
			return Object.fromEntries(question.gaps.map((gap) => [gap.id, gap.accepted[0]]));
		case 'essay':
		case 'upload':
			return null;
		default:
			return question.answer;
	}
}
