import { MINUTE } from './rules';

/**
 * Which warning is to be shown, so that each comes once: `told` are the minutes already told. A warning whose time lies
 * ahead again, because minutes were given, is told anew when it comes; of several that fall due at once, as after a pause,
 * only the nearest is shown.
 *
 * @param warnAt minutes before the end
 * @param remaining ms; null: no limit
 * @returns what to show now, in minutes, or null; and what counts as told from now on
 */
export function tellWarning(
	warnAt: readonly number[],
	remaining: number | null,
	told: readonly number[]
): { minutes: number | null; told: number[] } {
	const due = remaining === null ? [] : warnAt.filter((minutes) => remaining <= minutes * MINUTE);
	const fresh = due.filter((minutes) => !told.includes(minutes));
	const isOver = remaining !== null && remaining <= 0;
	return { minutes: fresh.length === 0 || isOver ? null : Math.min(...fresh), told: due };
}
