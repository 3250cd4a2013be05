import { minutesInWords } from './durations';
import { counted } from '../names';
import { allottedMinutes, ownOrigin, stopCounts, unionLength } from './reckon';
import { MINUTE, type MergedGrants, type TimingRules, type Track } from './rules';

/** What turning to the next question may take on a slow network. The whole has room for it, so that no question pays. */
const TURNING_SECONDS = 2;

/** Minutes for the whole paper that times for each question come to. */
export function minutesForAll(questionSeconds: number, questions: number): number {
	return Math.max(1, Math.ceil((questions * (questionSeconds + TURNING_SECONDS)) / 60));
}

/**
 * The rules of a session whose paper has so many questions: with a time for each, the limit for the whole follows.
 * Rules are entered without it (`asEntered`), and every reckoning has it.
 */
export function withWholeLimit<T extends { timing: TimingRules }>(rules: T, questions: number): T {
	const { questionSeconds } = rules.timing;
	if (questionSeconds === null) return rules;
	return { ...rules, timing: { ...rules.timing, limitMinutes: minutesForAll(questionSeconds, questions) } };
}

/** The rules as they were entered: with a time for each question there is no limit beside it. */
export function asEntered<T extends { timing: TimingRules }>(rules: T): T {
	if (rules.timing.questionSeconds === null) return rules;
	return { ...rules, timing: { ...rules.timing, limitMinutes: null } };
}

/** What a limit for the whole beside a time for each question is refused with. */
export function twoLimitsInWords(limitMinutes: number, questionSeconds: number): string {
	return `${minutesInWords(limitMinutes)} for the whole and ${counted(questionSeconds, 'second')} for each question: only one of them can apply.`;
}

/**
 * Seconds that a candidate has for each question: a factor multiplies them, extra minutes are spread over all questions,
 * and the cap on the whole is a cap on each. Fractions round up. null: no limit on each.
 */
export function secondsEach(rules: TimingRules, grants: MergedGrants): number | null {
	const { questionSeconds, limitMinutes } = rules;
	const allotted = allottedMinutes(rules, grants);
	if (questionSeconds === null || limitMinutes === null || allotted === null) return null;
	return Math.ceil((questionSeconds * allotted) / limitMinutes - 1e-9);
}

/** How the time for the question that was shown last stands. Instants and lengths in milliseconds. */
export type QuestionTime = {
	/** Its place on the form, from 0. */
	place: number;
	/** When its time is up; while a stop that counts goes on this moves along. */
	ends: number;
	remaining: number;
};

/**
 * Reckons the time for one question, from when it was shown; the first one's runs from the sitting's own clock. A stop
 * that gives time back gives it back to the question that it fell into.
 * @param shown where the question stands on the form, and when it was first sent to a device
 * @returns null where no question has a time of its own
 */
export function reckonQuestion(
	rules: TimingRules,
	grants: MergedGrants,
	track: Track,
	shown: { place: number; at: number },
	now: number
): QuestionTime | null {
	const seconds = secondsEach(rules, grants);
	const origin = ownOrigin(track);
	if (seconds === null || origin === null) return null;
	const from = Math.max(shown.at, origin);
	const counting = track.stops.filter((stop) => stopCounts(rules.clockStops, stop));
	const ends = from + seconds * (MINUTE / 60) + unionLength(counting, from, now);
	return { place: shown.place, ends, remaining: Math.max(0, ends - Math.max(now, from)) };
}
