import { markAnswer, type Verdict } from '../marking';
import {
	asDealt,
	questionsOf,
	type AnswerValue,
	type Form,
	type Paper,
	type PracticeRules,
	type TryRules
} from '../paper';

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
	/** Its hint, where a wrong try brings it. */
	hint: string | null;
};

/** A form as practice shows it at first: hints that come only with a wrong try, or never, are not in it. */
export function practised({ questions, ...form }: Form, { hints = 'asked' }: PracticeRules): Form {
	return { ...form, questions: hints === 'asked' ? questions : questions.map(({ hint: _, ...rest }) => rest) };
}

/** The share of a question's points that is left after wrong tries, from 0 to 1. */
export function shareAfter(wrongTries: number, { costPercent }: TryRules): number {
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
	const own = question.practice ?? rules;
	const isOver = verdict === 'right' || verdict === 'to_mark';
	const said =
		verdict === 'right' ? question.feedback?.right : verdict === 'wrong' ? question.feedback?.wrong : undefined;
	return {
		verdict,
		points: verdict === 'to_mark' ? null : points * shareAfter(tries - 1, own),
		outOf,
		triesLeft: isOver ? 0 : Math.max(0, own.tries - tries),
		feedback: said ?? null,
		hint: (verdict === 'wrong' && rules.hints === 'after_wrong' && question.hint) || null
	};
}
