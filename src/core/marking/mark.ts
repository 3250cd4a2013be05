import { earlyPoints } from './early';
import { exact, exactSum, shareOf, type Exact } from './exact';
import {
	asDealt,
	isBlank,
	isMarkedByHand,
	pointsToReach,
	questionsOf,
	type AnswerValue,
	type DealtQuestion,
	type Form,
	type Paper,
	type Question
} from '../paper';
import { isReduced, readNumber } from '../quantity';
import { isAcceptedBefore, isWithinBefore, readNumberBefore } from './read-before';
import { isAccepted } from './short-answer';
import { isWithin } from './tolerance';
import type { Treatment } from './treatment';

/** What a wrong answer costs. Blanks cost nothing. */
export type MarkingRules = {
	/** `guessing`: R − W/(k−1), so that what guessing would gain on average is taken back, where there are choices. */
	wrong: 'free' | 'fixed' | 'guessing';
	/** What each wrong answer costs under `fixed`. */
	points?: number;
	/** Points for handing in with at least so many minutes left; null: none. */
	earlyMinutes?: number | null;
	earlyPoints?: number;
};

/** What candidates are told of it before they begin; null: wrong answers cost nothing. */
export function markingInWords({ wrong, points = 0 }: MarkingRules): string | null {
	switch (wrong) {
		case 'free':
			return null;
		case 'fixed':
			return `A wrong answer costs ${points} ${points === 1 ? 'point' : 'points'}. A blank costs nothing.`;
		case 'guessing':
			return 'Wrong answers to questions with choices are corrected for guessing: with four choices, a wrong answer costs a third of the question’s points. A blank costs nothing.';
	}
}

/** `to_mark`: somebody has to read it. */
export type Verdict = 'right' | 'partly' | 'wrong' | 'blank' | 'to_mark';
/** `treated`: it counts otherwise than its verdict says, because the question was corrected. */
export type Mark = {
	questionId: string;
	verdict: Verdict;
	points: number;
	outOf: number;
	treated?: 'for_all' | 'left_out';
};
/** What is known about an answer besides the answer itself. */
export type Besides = {
	/** How its question is marked by what was corrected. */
	treatment?: Treatment;
	/** What a person gave, of the points that the paper says; undefined: nobody has marked it. */
	byHand?: number;
	/** See `MarkingSoFar`. */
	asBefore?: boolean;
};
/** `early`: what of the points is for handing in early. */
export type Score = {
	marks: Mark[];
	early: number;
	points: number;
	outOf: number;
	blanks: number;
	toMark: number;
	/** Added up, and held against marks, as it was before points were exact. */
	asBefore?: boolean;
};

/** Marks one answer. Points are exact (see `Exact`); rounding is for display. */
export function markAnswer(
	asWritten: DealtQuestion,
	value: AnswerValue,
	rules: MarkingRules,
	{ treatment, byHand, asBefore = false }: Besides = {}
): Mark {
	const points = treatment?.points ?? asWritten.points;
	const question = { ...asWritten, points };
	const given = byHand === undefined ? null : shareOf(byHand, asWritten.points);
	const marked = markedAs(question, value, rules, { treatment, byHand: given, asBefore });
	const outOf = pointsToReach(question);
	switch (treatment?.counts) {
		case 'for_all':
			return { questionId: question.id, verdict: marked.verdict, points, outOf, treated: 'for_all' };
		case 'left_out':
			return { questionId: question.id, verdict: marked.verdict, points: 0, outOf: 0, treated: 'left_out' };
		default:
			return { questionId: question.id, ...marked, outOf };
	}
}

/** @param byHand the share of the points that a person gave; null: nobody has */
function markedAs(
	question: DealtQuestion,
	value: AnswerValue,
	rules: MarkingRules,
	{ treatment, byHand, asBefore }: { treatment: Treatment | undefined; byHand: Exact | null; asBefore: boolean }
): Pick<Mark, 'verdict' | 'points'> {
	if (isBlank(value)) return { verdict: 'blank', points: 0 };
	if (isMarkedByHand(question) && byHand === null) return { verdict: 'to_mark', points: 0 };
	const share = isMarkedByHand(question)
		? byHand!
		: largest(keyedBy(question, treatment).map((keyed) => shareRight(keyed, value, asBefore ? READ_BEFORE : READ)));
	if (share.equals(1)) return { verdict: 'right', points: question.points };
	if (share.compare(0) > 0) return { verdict: 'partly', points: partOf(question.points, share, asBefore) };
	return { verdict: 'wrong', points: isMarkedByHand(question) ? 0 : 0 - costOf(question, rules) };
}

const partOf = (points: number, share: Exact, asBefore: boolean) =>
	asBefore ? points * share.valueOf() : exact(points).mul(share).valueOf();

const largest = (shares: Exact[]) => shares.reduce((most, one) => (one.compare(most) > 0 ? one : most));

type Marked = Exclude<DealtQuestion, { kind: 'essay' | 'upload' }>;

/** A question as it is marked now: with its key and its points, where they were corrected. */
export function asTreated<Q extends Question>(question: Q, treatment: Treatment | undefined): Q {
	if (!treatment) return question;
	const worth = { ...question, points: treatment.points ?? question.points };
	if (treatment.key === undefined || isMarkedByHand(worth) || worth.kind === 'calculated') return worth;
	return withKey(worth as Marked, treatment.key) as Q;
}

/** The question with each of the answers that are right for it now. */
function keyedBy(question: Marked, treatment: Treatment | undefined): Marked[] {
	if (!treatment) return [question];
	const main = treatment.key === undefined ? question : withKey(question, treatment.key);
	return [main, ...treatment.also.map((answer) => withKey(question, answer))];
}

/**
 * The question with another right answer.
 * @param answer as a candidate would give it; it fits the question (`fitsQuestion`)
 */
function withKey(question: Marked, answer: AnswerValue): Marked {
	switch (question.kind) {
		case 'numeric':
			return { ...question, answer: readNumber(String(answer))[0] ?? NaN };
		case 'short':
			return { ...question, accepted: [String(answer)] };
		case 'fill_in': {
			const given = partsOf(answer);
			return { ...question, gaps: question.gaps.map((gap) => ({ ...gap, accepted: [given[gap.id] ?? ''] })) };
		}
		default:
			return { ...question, answer } as Marked;
	}
}

/** How what was typed is read, now and before. */
const READ = { number: readNumber, isWithin, isAccepted };
const READ_BEFORE: typeof READ = { number: readNumberBefore, isWithin: isWithinBefore, isAccepted: isAcceptedBefore };

const [NONE, ALL] = [exact(0), exact(1)];
/** How much of an answer is right, from 0 to 1; without partial credit all or nothing. */
function shareRight(question: Marked, value: AnswerValue, read: typeof READ): Exact {
	const allOr = (isRight: boolean) => (isRight ? ALL : NONE);
	const wholeOr = (share: Exact) => ('partial' in question && question.partial ? share : share.floor());
	switch (question.kind) {
		case 'true_false':
		case 'single':
			return allOr(value === question.answer);
		case 'numeric':
			if (typeof value !== 'string' || !read.number(value).some((number) => read.isWithin(number, question)))
				return NONE;
			return question.unsimplified !== undefined && !isReduced(value) ? shareOf(question.unsimplified, 100) : ALL;
		case 'short':
			return allOr(typeof value === 'string' && read.isAccepted(question.accepted, value));
		case 'multiple':
			return Array.isArray(value) ? wholeOr(chosenRight(question.answer, value)) : NONE;
		case 'ordering':
			return Array.isArray(value) ? wholeOr(inPlace(question.answer, value)) : NONE;
		case 'matching': {
			const given = partsOf(value);
			const right = question.items.filter((item) => given[item.id] === question.answer[item.id]);
			return wholeOr(shareOf(right.length, question.items.length));
		}
		case 'fill_in': {
			const given = partsOf(value);
			const right = question.gaps.filter((gap) => read.isAccepted(gap.accepted, given[gap.id] ?? ''));
			return wholeOr(shareOf(right.length, question.gaps.length));
		}
	}
}

/** Each right choice earns its share, each wrong one takes one back, so that choosing everything earns nothing. Common practice. */
function chosenRight(right: string[], chosen: string[]): Exact {
	const given = new Set(chosen);
	const hits = right.filter((id) => given.has(id)).length;
	return shareOf(Math.max(0, hits - (given.size - hits)), right.length);
}

/** The share that stands at its own place. Common practice. */
function inPlace(right: string[], given: string[]): Exact {
	return shareOf(right.filter((id, i) => given[i] === id).length, right.length);
}

function partsOf(value: AnswerValue): Record<string, string> {
	return value !== null && typeof value === 'object' && !Array.isArray(value) ? value : {};
}

function costOf(question: DealtQuestion, rules: MarkingRules): number {
	if (rules.wrong === 'free') return 0;
	if (rules.wrong === 'fixed') return rules.points ?? 0;
	// Only where one of k must be chosen does guessing gain what R − W/(k−1) takes back.
	const choices = question.kind === 'true_false' ? 2 : question.kind === 'single' ? question.choices.length : 0;
	return choices > 1 ? shareOf(question.points, choices - 1).valueOf() : 0;
}

/** What bears on the marks of one candidate beside paper, answers and rules. */
export type MarkingSoFar = {
	/** By question: how it is marked by what was corrected. */
	treatments?: Map<string, Treatment>;
	/** By question: the points that a person gave. */
	byHand?: Map<string, number>;
	/** Working time that the candidate had left when they handed in, ms; null: none, or another handed in for them. */
	leftMs?: number | null;
	/** Closed before 0.24: read and added up as it was then, since what is closed does not change. */
	asBefore?: boolean;
};

/** Marks a whole form against the paper it was dealt from. A question without an answer is a blank. */
export function markForm(
	paper: Paper,
	form: Form,
	answers: Map<string, AnswerValue>,
	rules: MarkingRules,
	{ treatments, byHand, leftMs = null, asBefore = false }: MarkingSoFar = {}
): Score {
	const byId = new Map(questionsOf(paper).map((question) => [question.id, question]));
	const marks = form.questions.map((dealt) =>
		markAnswer(asDealt(byId.get(dealt.id)!, dealt), answers.get(dealt.id) ?? null, rules, {
			treatment: treatments?.get(dealt.id),
			byHand: byHand?.get(dealt.id),
			asBefore
		})
	);
	const early = earlyPoints(rules, leftMs);
	const sum = asBefore ? (all: number[]) => all.reduce((before, one) => before + one, 0) : exactSum;
	return {
		marks,
		early,
		...(asBefore && { asBefore }),
		points: sum([early, ...marks.map((mark) => mark.points)]),
		outOf: sum(marks.map((mark) => mark.outOf)),
		blanks: marks.filter((mark) => mark.verdict === 'blank').length,
		// Where everyone gets the points, or nobody, there is nothing left to mark.
		toMark: marks.filter((mark) => mark.verdict === 'to_mark' && !mark.treated).length
	};
}
