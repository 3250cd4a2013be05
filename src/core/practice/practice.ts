import { markAnswer, type Verdict } from '../marking';
import { asDealt, questionsOf, type AnswerValue, type Form, type Paper, type PracticeRules } from '../paper';

/** What a try at one question of a practice paper comes to. */
export type Tried = {
	verdict: Verdict;
	/** What it brings with this many tries; null: somebody would have to mark it. */
	points: number | null;
	outOf: number;
	/** Tries that are left; none once it is right. */
	triesLeft: number;
	/** What its author says to this answer. */
	feedback: string | null;
};

/** The share of a question's points that is left after wrong tries, from 0 to 1. */
export function shareAfter(wrongTries: number, { costPercent }: PracticeRules): number {
	return Math.max(0, 1 - (wrongTries * costPercent) / 100);
}

/**
 * Marks a try at once. Nothing of the key is told but whether it was right: who has tries left may try again.
 * @param tries which try it is, from 1
 * @returns null: the form has no such question
 */
export function tryQuestion(
	paper: Paper,
	form: Form,
	questionId: string,
	value: AnswerValue,
	tries: number,
	rules: PracticeRules
): Tried | null {
	const dealt = form.questions.find(({ id }) => id === questionId);
	const question = questionsOf(paper).find(({ id }) => id === questionId);
	if (!dealt || !question) return null;
	const { verdict, points, outOf } = markAnswer(asDealt(question, dealt), value, { wrong: 'free', points: 0 });
	const isOver = verdict === 'right' || verdict === 'to_mark';
	const said =
		verdict === 'right' ? question.feedback?.right : verdict === 'wrong' ? question.feedback?.wrong : undefined;
	return {
		verdict,
		points: verdict === 'to_mark' ? null : points * shareAfter(tries - 1, rules),
		outOf,
		triesLeft: isOver ? 0 : Math.max(0, rules.tries - tries),
		feedback: said ?? null
	};
}
