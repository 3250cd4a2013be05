/** How long what is about persons is kept after an administration was closed, in years; null: with the house. */
export type RetentionTerms = {
	/** Answers, what was handed in, marks, results, messages, incidents. */
	answers: number | null;
	/** What the entries of the log say; that there were such entries, and when, stays. */
	log: number | null;
};

export const KEPT_YEARS = [1, 2, 3, 5, 7, 10, 20] as const;

/** Nothing goes by itself until somebody has said after how long. */
export const NO_END: RetentionTerms = { answers: null, log: null };

/** Until when something is kept, so many calendar years after `from` (epoch ms, UTC; 29 February goes on as 1 March). */
export function keptUntil(from: number, years: number): number {
	const date = new Date(from);
	return date.setUTCFullYear(date.getUTCFullYear() + years);
}

/** What was closed by this instant has been kept for so many years at `now`. */
export function closedBefore(now: number, years: number): number {
	return keptUntil(now, -years);
}

/** Why these terms do not fit together; null: they do. The log explains the answers, and is kept for as long as they are. */
export function termsFault({ answers, log }: RetentionTerms): string | null {
	if (log === null || (answers !== null && answers <= log)) return null;
	return answers === null
		? 'The log explains the answers: give the answers a time too, of no more years.'
		: 'The log explains the answers: keep it for at least as many years.';
}
