import { bandOf, exact, exactSum, reachesPercent, shareOf, type Band, type Score } from '../marking';
import type { Question } from '../paper';
import type { ResultRules } from '../session';

/** What was reached of one topic. */
export type TopicResult = { topic: string; points: number; outOf: number; isCredited: boolean };

/** A result as it is stored: exact. */
export type Result = {
	points: number;
	outOf: number;
	toMark: number;
	/** What of the points is for handing in early. */
	early: number;
	band: Pick<Band, 'name' | 'message'> | null;
	/** null: no pass mark, or not known yet. */
	passed: boolean | null;
	topics: TopicResult[];
	/** Questions that do not count as they were answered, by their place on the form, from 1. */
	treated: { place: number; how: 'for_all' | 'left_out' }[];
};

/** @param questions by id, for their topics */
export function resultOf(score: Score, rules: ResultRules, questions: Map<string, Pick<Question, 'topic'>>): Result {
	return {
		points: score.points,
		outOf: score.outOf,
		toMark: score.toMark,
		early: score.early,
		...verdictOf(score, rules),
		topics: topicsOf(score, questions, rules.creditPercent),
		treated: score.marks.flatMap(({ treated }, i) => (treated ? [{ place: i + 1, how: treated }] : []))
	};
}

/** Passed or not, and what it is called. */
export type ScoreVerdict = Pick<Result, 'passed' | 'band'>;

/** What a score comes to by the rules; nothing, as long as somebody has to mark some of it, or there is none. */
export function verdictOf(
	score: Pick<Score, 'points' | 'outOf' | 'toMark' | 'asBefore'> | null,
	rules: Pick<ResultRules, 'bands' | 'passPercent'>
): ScoreVerdict {
	if (score === null || score.toMark > 0) return { band: null, passed: null };
	const band = bandOf(rules.bands, score);
	return {
		band: band && { name: band.name, message: band.message },
		passed: rules.passPercent === null ? null : reachesPercent(score, rules.passPercent)
	};
}

/** By the first step of the topic’s path, in the order of the form; what has no points to reach is left out. */
function topicsOf(
	{ marks, asBefore }: Pick<Score, 'marks' | 'asBefore'>,
	questions: Map<string, Pick<Question, 'topic'>>,
	creditPercent: number
): TopicResult[] {
	const add = (a: number, b: number) => (asBefore ? a + b : exactSum([a, b]));
	const by = new Map<string, { points: number; outOf: number }>();
	for (const { questionId, points, outOf } of marks) {
		const topic = questions.get(questionId)?.topic.split(' / ')[0].trim() || 'Other';
		const sum = by.get(topic) ?? { points: 0, outOf: 0 };
		by.set(topic, { points: add(sum.points, points), outOf: add(sum.outOf, outOf) });
	}
	return [...by]
		.filter(([, { outOf }]) => outOf > 0)
		.map(([topic, sum]) => ({ topic, ...sum, isCredited: reachesPercent({ ...sum, asBefore }, creditPercent) }));
}

/** Points as they are shown: two places at most, halves away from nought. What is stored and compared stays exact. */
export function shownPoints(points: number): string {
	return String(roundedTo(points, 2));
}

/** Points as they go out in files: six places at most, so that a third has an end. */
export const writtenPoints = (points: number): number => roundedTo(points, 6);

const roundedTo = (points: number, places: number): number => exact(points).round(places).valueOf();

/**
 * A share as it is shown, in per cent: rounded to a tenth, but never up to a whole per cent that it does not reach. 49.96 %
 * is shown as 49.9 %, and not as the 50 % that would have passed.
 */
export function shownPercent({ points, outOf }: { points: number; outOf: number }): string {
	const tenths = shareOf(points, outOf).mul(1_000);
	const rounded = tenths.add(exact(0.5)).floor();
	const reachesWhole = rounded.mod(10).equals(0) && rounded.compare(tenths) > 0;
	return `${(reachesWhole ? rounded.sub(1) : rounded).div(10).valueOf()} %`;
}

/** How many of these shares, from 0 to 1, lie in each tenth; all of it counts to the last. */
export function byTenths(shares: number[]): number[] {
	const tenths = Array.from({ length: 10 }, () => 0);
	for (const share of shares) tenths[Math.max(0, Math.min(9, Math.floor(share * 10)))]++;
	return tenths;
}
