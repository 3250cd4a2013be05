import { exact, shareOf, type Score } from '../marking';
import type { AttemptRules } from '../session';
import { MINUTE } from '../time';

/** Whether somebody may sit a paper once more, and if not, why. */
export type NextAttempt =
	| { ok: true; attempt: number }
	/** `from`: not before then, epoch ms. */
	| { ok: false; why: 'none_left' }
	| { ok: false; why: 'wait'; attempt: number; from: number };

/**
 * The attempt after the last one.
 * @param last its number, from 1, and when it ended, epoch ms
 * @param at when the next would begin
 */
export function nextAttempt(
	{ most, waitMinutes, laterWaitMinutes }: Pick<AttemptRules, 'most' | 'waitMinutes' | 'laterWaitMinutes'>,
	last: { attempt: number; endedAt: number },
	at: number
): NextAttempt {
	const attempt = last.attempt + 1;
	if (attempt > most) return { ok: false, why: 'none_left' };
	const from = last.endedAt + (last.attempt === 1 ? waitMinutes : laterWaitMinutes) * MINUTE;
	return at < from ? { ok: false, why: 'wait', attempt, from } : { ok: true, attempt };
}

/** A score that was reached: points, how many there were to reach, and how many answers somebody still has to mark. */
export type Reached = Pick<Score, 'points' | 'outOf' | 'toMark' | 'asBefore'>;

/**
 * What several attempts come to, by the rule; null: none has a score. The mean is of the shares that were reached, given
 * in the points of the last attempt, since forms may differ in what there was to reach.
 * @param reached in the order in which they were sat
 */
export function countingScore(counts: AttemptRules['counts'], reached: Reached[]): Reached | null {
	if (reached.length === 0) return null;
	const share = ({ points, outOf }: Reached) => shareOf(points, outOf);
	const last = reached[reached.length - 1];
	// Without the rest of the attempt, which may hold every mark.
	const plain = ({ points, outOf, toMark, asBefore }: Reached): Reached => ({
		points,
		outOf,
		toMark,
		...(asBefore && { asBefore })
	});
	// Which is the highest, and what the mean is, is known when each of them is.
	const toMark = reached.reduce((sum, one) => sum + one.toMark, 0);
	switch (counts) {
		case 'first':
			return plain(reached[0]);
		case 'last':
			return plain(last);
		case 'highest':
			return { ...plain(reached.reduce((best, one) => (share(one).compare(share(best)) > 0 ? one : best))), toMark };
		case 'mean': {
			const mean = reached.reduce((sum, one) => sum.add(share(one)), exact(0)).div(reached.length);
			return { ...plain(last), points: mean.mul(exact(last.outOf)).valueOf(), toMark };
		}
	}
}
