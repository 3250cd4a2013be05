import type { AnswerValue, Form, Paper, Question } from '../paper';
import { readNumber } from './number';

/** What a wrong answer costs. Blanks cost nothing. */
export type MarkingRules =
	| { wrong: 'free' }
	| { wrong: 'fixed'; points: number }
	/** R − W/(k−1): what guessing would gain on average is taken back. Numeric answers cannot be guessed so. */
	| { wrong: 'guessing' };

export type Verdict = 'right' | 'wrong' | 'blank';
export type Mark = { questionId: string; verdict: Verdict; points: number; outOf: number };
export type Score = { marks: Mark[]; points: number; outOf: number; blanks: number };

/** Marks one answer. Points are exact; rounding is for display. */
export function markAnswer(question: Question, value: AnswerValue, rules: MarkingRules): Mark {
	const verdict = judge(question, value);
	const points = verdict === 'right' ? question.points : verdict === 'wrong' ? 0 - costOf(question, rules) : 0;
	return { questionId: question.id, verdict, points, outOf: question.points };
}

function judge(question: Question, value: AnswerValue): Verdict {
	if (value === null || (typeof value === 'string' && value.trim() === '')) return 'blank';
	switch (question.kind) {
		case 'true_false':
		case 'single':
			return value === question.answer ? 'right' : 'wrong';
		case 'numeric':
			return typeof value === 'string' && readNumber(value).some((read) => isWithin(read, question))
				? 'right'
				: 'wrong';
	}
}

function isWithin(read: number, question: Question & { kind: 'numeric' }): boolean {
	const { kind, amount } = question.tolerance;
	const allowed = kind === 'absolute' ? amount : Math.abs(question.answer) * amount;
	// An answer exactly on the edge is inside it; binary fractions must not decide that.
	return Math.abs(read - question.answer) <= allowed + 1e-9 * Math.max(1, Math.abs(question.answer));
}

function costOf(question: Question, rules: MarkingRules): number {
	if (rules.wrong === 'free') return 0;
	if (rules.wrong === 'fixed') return rules.points;
	if (question.kind === 'numeric') return 0;
	const choices = question.kind === 'true_false' ? 2 : question.choices.length;
	return question.points / (choices - 1);
}

/** Marks a whole form against the paper it was dealt from. A question without an answer is a blank. */
export function markForm(paper: Paper, form: Form, answers: Map<string, AnswerValue>, rules: MarkingRules): Score {
	const byId = new Map(paper.parts.flatMap((part) => part.questions).map((question) => [question.id, question]));
	const marks = form.questions.map((dealt) => markAnswer(byId.get(dealt.id)!, answers.get(dealt.id) ?? null, rules));
	return {
		marks,
		points: marks.reduce((sum, mark) => sum + mark.points, 0),
		outOf: marks.reduce((sum, mark) => sum + mark.outOf, 0),
		blanks: marks.filter((mark) => mark.verdict === 'blank').length
	};
}
