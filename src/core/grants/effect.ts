import { allottedMinutes, clockTime, timeAndDate, type MergedGrants, type Reckoning, type TimingRules } from '../time';

/**
 * What a grant does, in one line, before it is saved: `80 + 20 = 100 min, ends 10:40`.
 * Naming the addition and the total together keeps one from being taken for the other.
 * @param ends when the sitting would end, or ended by its full time from the window's opening; null: no end
 */
export function effectInWords(rules: TimingRules, grants: MergedGrants, ends: number | null, zone: string): string {
	const base = rules.limitMinutes;
	const total = allottedMinutes(rules, grants);
	const own = grants.window
		? `, own window ${clockTime(grants.window.opens, zone)}${grants.window.closes === null ? '' : ` to ${timeAndDate(grants.window.closes, zone, grants.window.opens)}`}`
		: '';
	const until = `${own}${ends === null ? '' : `, ends ${clockTime(ends, zone)}`}`;
	if (base === null || total === null) return `no time limit${until}`;
	const added = total - base;
	const credits = grants.creditsMinutes > 0 ? ` and ${grants.creditsMinutes} min given back` : '';
	if (added === 0) return `${base} min${credits}${until}`;
	const capped = rules.maxLimitMinutes !== null && total === rules.maxLimitMinutes ? ' (the most the rules allow)' : '';
	return `${base} + ${added} = ${total} min${credits}${capped}${until}`;
}

/** When somebody ends who has not begun yet: full time from the window's opening, or from now when that is later. */
export function expectedEnd(reckoning: Reckoning, atClose: TimingRules['atClose'], now: number): number | null {
	if (reckoning.origin !== null) return reckoning.deadline;
	if (reckoning.allotted === null) return atClose === 'cut' ? reckoning.windowEnd : null;
	const full = Math.max(now, reckoning.window.opens) + reckoning.allotted + reckoning.credits;
	return atClose === 'cut' && reckoning.windowEnd !== null ? Math.min(full, reckoning.windowEnd) : full;
}
