import { bandOf, reachesPercent, type Band, type Mark, type Score } from '../marking';
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
	const isKnown = score.toMark === 0;
	const band = isKnown ? bandOf(rules.bands, score) : null;
	return {
		points: score.points,
		outOf: score.outOf,
		toMark: score.toMark,
		early: score.early,
		band: band && { name: band.name, message: band.message },
		passed: isKnown && rules.passPercent !== null ? reachesPercent(score, rules.passPercent) : null,
		topics: topicsOf(score.marks, questions, rules.creditPercent),
		treated: score.marks.flatMap(({ treated }, i) => (treated ? [{ place: i + 1, how: treated }] : []))
	};
}

/** By the first step of the topic’s path, in the order of the form; what has no points to reach is left out. */
function topicsOf(
	marks: Mark[],
	questions: Map<string, Pick<Question, 'topic'>>,
	creditPercent: number
): TopicResult[] {
	const by = new Map<string, { points: number; outOf: number }>();
	for (const { questionId, points, outOf } of marks) {
		const topic = questions.get(questionId)?.topic.split(' / ')[0].trim() || 'Other';
		const sum = by.get(topic) ?? { points: 0, outOf: 0 };
		by.set(topic, { points: sum.points + points, outOf: sum.outOf + outOf });
	}
	return [...by]
		.filter(([, { outOf }]) => outOf > 0)
		.map(([topic, sum]) => ({ topic, ...sum, isCredited: reachesPercent(sum, creditPercent) }));
}

/** Points as they are shown: two places at most. What is stored and compared stays exact. */
export function shownPoints(points: number): string {
	return String(Math.round(points * 100) / 100);
}

/** A share as it is shown, in whole per cent; never rounded over a mark that was not reached. */
export function shownPercent({ points, outOf }: { points: number; outOf: number }): string {
	if (outOf === 0) return '0 %';
	const percent = (points / outOf) * 100;
	const rounded = Math.round(percent);
	// 49.7 % is not shown as the 50 % that it does not reach.
	return `${rounded > percent && rounded - percent < 0.5 ? Math.floor(percent * 10) / 10 : rounded} %`;
}

/** How many of these shares, from 0 to 1, lie in each tenth; all of it counts to the last. */
export function byTenths(shares: number[]): number[] {
	const tenths = Array.from({ length: 10 }, () => 0);
	for (const share of shares) tenths[Math.max(0, Math.min(9, Math.floor(share * 10)))]++;
	return tenths;
}
