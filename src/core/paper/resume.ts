/** What is known of a paper that somebody comes back to. Indexes are places in the form, from 0. */
export type Left = {
	questions: number;
	/** Places told to the server or kept on the device, the latest last. */
	touched: readonly number[];
	/** Where this very tab was; null: it is a fresh one. */
	seen: number | null;
	/** Questions on a page where nobody may go back; null: they may. */
	forwardBy: number | null;
	/** Answered, or marked for later. */
	isSettled: (place: number) => boolean;
};

/**
 * Where somebody goes on who comes back to their paper, after a reload, on another device or on another day: where they
 * were. Of that, the device remembers the place and the server only what was touched last: when that is settled and
 * the next is not, they were about to go on to the next. Where nobody may go back it is on the page that they had
 * reached: they turn to the next themselves.
 */
export function placeToResume({ questions, touched, seen, forwardBy, isSettled }: Left): number {
	const last = touched.at(-1) ?? 0;
	const next = last + 1;
	const isDone = touched.length > 0 && isSettled(last) && next < questions && !isSettled(next);
	const place = seen ?? (isDone ? next : last);
	if (forwardBy === null) return place;
	const furthest = Math.max(0, ...touched);
	return Math.floor(place / forwardBy) === Math.floor(furthest / forwardBy) ? place : furthest;
}
