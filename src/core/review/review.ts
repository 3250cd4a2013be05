import {
	asTreated,
	markForm,
	rightAnswer,
	type Band,
	type MarkingRules,
	type MarkingSoFar,
	type Verdict
} from '../marking';
import { verdictOf } from '../results';
import {
	questionsOf,
	asDealt,
	type AnswerValue,
	type Form,
	type FormQuestion,
	type Paper,
	type Question
} from '../paper';
import type { ResultRules, ReviewRules } from '../session';

/** What a candidate sees afterwards, no more than the rules allow. */
export type Review = {
	points: number;
	outOf: number;
	/** Questions that somebody still has to mark. */
	toMark: number;
	/** null: no pass mark, or it is not known yet. */
	passed: boolean | null;
	/** What the result is called, by the rules; null: it reaches no band, or is not known yet. */
	band: Pick<Band, 'name' | 'message'> | null;
	/** null: only the score is shown. */
	questions: ReviewedQuestion[] | null;
};

export type ReviewedQuestion = {
	question: FormQuestion;
	given: AnswerValue;
	/** Only with the right answers, or else a second try could be made of what was told after the first. */
	verdict: Verdict | null;
	points: number | null;
	right: AnswerValue;
	/** What its author says to this answer; with the right answers alone. */
	feedback?: string;
};

/** How things stand with a paper when somebody would look back at it. */
export type ReviewState = {
	handedIn: boolean;
	/** The session has ended, and nobody works on in it in a window of their own. */
	sessionOver: boolean;
	/** Nobody in the administration can still sit the paper: expected, at work, carried over, owed a make-up, or again. */
	nobodyOwes: boolean;
};

/** Whether the time for looking back has come. The right answers wait until nobody can still sit the paper, always. */
export function mayReview(rules: ReviewRules, at: ReviewState): boolean {
	if (rules.shows === 'nothing' || !at.handedIn) return false;
	if (rules.shows === 'key' && !at.nobodyOwes) return false;
	return rules.when === 'at_once' || (rules.when === 'session_ended' ? at.sessionOver : at.nobodyOwes);
}

/** Marks and shows as much as the rules say. */
export function reviewOf(
	paper: Paper,
	form: Form,
	answers: Map<string, AnswerValue>,
	rules: { marking: MarkingRules; review: ReviewRules; result: ResultRules },
	soFar: MarkingSoFar = {}
): Review {
	const score = markForm(paper, form, answers, rules.marking, soFar);
	const byId = new Map(questionsOf(paper).map((question) => [question.id, question]));
	const withKey = rules.review.shows === 'key';
	return {
		points: score.points,
		outOf: score.outOf,
		toMark: score.toMark,
		...verdictOf(score, rules.result),
		questions:
			rules.review.shows === 'score'
				? null
				: form.questions.map((question, i) => ({
						...(withKey && feedbackTo(byId.get(question.id)!, score.marks[i].verdict)),
						question,
						given: answers.get(question.id) ?? null,
						verdict: withKey ? score.marks[i].verdict : null,
						points: withKey ? score.marks[i].points : null,
						right: withKey
							? rightAnswer(asTreated(asDealt(byId.get(question.id)!, question), soFar.treatments?.get(question.id)))
							: null
					}))
	};
}

function feedbackTo({ feedback }: Question, verdict: Verdict): { feedback?: string } {
	const text = verdict === 'right' ? feedback?.right : verdict === 'to_mark' ? undefined : feedback?.wrong;
	return text ? { feedback: text } : {};
}

/** An answer as words, by the texts of its question. */
export function answerInWords(question: FormQuestion, value: AnswerValue): string {
	const texts = new Map(
		[...(question.choices ?? []), ...(question.items ?? []), ...(question.matches ?? [])].map((one) => [
			one.id,
			one.text
		])
	);
	const text = (id: string) => texts.get(id) ?? id;
	if (value === null) return '';
	if (typeof value === 'boolean') return value ? 'True' : 'False';
	if (typeof value === 'string')
		return question.kind === 'single' ? text(value) : `${value}${question.unit ? ` ${question.unit}` : ''}`;
	if (question.kind === 'upload' && Array.isArray(value))
		return `${value.length} ${value.length === 1 ? 'file' : 'files'}`;
	if (Array.isArray(value)) return value.map(text).join(question.kind === 'ordering' ? ', then ' : '; ');
	if (question.kind === 'matching')
		return Object.entries(value)
			.map(([item, match]) => `${text(item)}: ${text(match)}`)
			.join('; ');
	return question.gaps!.map((gap) => value[gap] ?? '…').join(', ');
}
