import type { FormQuestion, Question } from '../paper';

/** From so many observations on, what people really take decides; before that, the words of the question do. */
export const ENOUGH_OBSERVATIONS = 30;
/** Ten per cent of the mean time (normative threshold NT10, Wise & Ma 2012), at most ten seconds. */
const SHARE_OF_MEAN = 0.1;
const LONGEST_MS = 10_000;
const SHORTEST_MS = 3_000;
/** Silent reading of English non-fiction, words a minute (Brysbaert 2019). */
const READING_WPM = 238;

export type Observations = { count: number; meanMs: number };

/**
 * Faster than this, a question can't have been read: milliseconds in view.
 * @param words of stem and choices
 */
export function thresholdMs(words: number, observed: Observations | null): number {
	if (observed && observed.count >= ENOUGH_OBSERVATIONS) return Math.min(LONGEST_MS, observed.meanMs * SHARE_OF_MEAN);
	const atTwiceTheRate = (words / (2 * READING_WPM)) * 60_000;
	return Math.min(LONGEST_MS, Math.max(SHORTEST_MS, atTwiceTheRate));
}

/** The words that have to be read to answer. */
export function wordsOf(question: Question | FormQuestion): number {
	const texts = [question.stem];
	if ('choices' in question) texts.push(...(question.choices ?? []).map((choice) => choice.text));
	if ('items' in question) texts.push(...(question.items ?? []).map((item) => item.text));
	if ('matches' in question) texts.push(...(question.matches ?? []).map((match) => match.text));
	return texts.join(' ').split(/\s+/).filter(Boolean).length;
}
