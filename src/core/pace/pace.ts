/** An answer by the time its question was in view, in the order in which they were given. */
export type Response = { questionId: string; inViewMs: number; thresholdMs: number };

export const PACE_LEVELS = ['calm', 'watch', 'hold', 'spoiled'] as const;
export type PaceLevel = (typeof PACE_LEVELS)[number];

export type Pace = {
	level: PaceLevel;
	/** Answers that came faster than reading takes. */
	rapid: number;
	/** Of the whole paper, on its way to `SPOILED_SHARE`. */
	share: number;
	/** Response-time effort: the share of the answers given that are not rapid (Wise & Kong 2005); null: none given yet. */
	effort: number | null;
};

const WATCH_RAPID = 3;
const WATCH_OF_LAST = 5;
const WATCH_SHARE = 0.1;
/** So many in a row pause the paper, where the rule sheet says so. */
export const HOLD_IN_A_ROW = 5;
/** From here on the score does not reflect what the candidate can do. Common practice. */
export const SPOILED_SHARE = 0.3;

/** A response is rapid when it came faster than its question's threshold. */
export function isRapid(response: Pick<Response, 'inViewMs' | 'thresholdMs'>): boolean {
	return response.inViewMs < response.thresholdMs;
}

/** How the answers of one candidate came. @param questions how many the paper has */
export function paceOf(responses: Response[], questions: number): Pace {
	const rapid = responses.map(isRapid);
	const count = rapid.filter(Boolean).length;
	const share = questions === 0 ? 0 : count / questions;
	const inARow = rapid.length - 1 - rapid.lastIndexOf(false);
	const recent = rapid.slice(-WATCH_OF_LAST).filter(Boolean).length;
	const level: PaceLevel =
		share >= SPOILED_SHARE
			? 'spoiled'
			: inARow >= HOLD_IN_A_ROW
				? 'hold'
				: recent >= WATCH_RAPID || (count > 0 && share >= WATCH_SHARE)
					? 'watch'
					: 'calm';
	return { level, rapid: count, share, effort: rapid.length === 0 ? null : 1 - count / rapid.length };
}

/**
 * Times in view as the browser claims them, checked against the clock: together they can't be longer than the time that
 * passed. Claims that are shorter stand.
 * @param elapsedMs working time since the candidate began, holds left out
 */
export function checkedTimes(claimedMs: number[], elapsedMs: number): number[] {
	const sum = claimedMs.reduce((total, ms) => total + ms, 0);
	if (sum <= elapsedMs || sum === 0) return claimedMs;
	return claimedMs.map((ms) => (ms * Math.max(0, elapsedMs)) / sum);
}
