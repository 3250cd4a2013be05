import { allottedMinutes, clockTime, timeAndDate, type MergedGrants, type Reckoning, type TimingRules } from '../time';

/**
 * What a grant does, in one line, before it is saved: `80 + 20 = 100 min, ends 10:40`; for whoever has not begun, `ends
 * 10:55 at the latest`. Naming the addition and the total together keeps one from being taken for the other.
 * @param at how the sitting's time would be reckoned, and when it ended if it has
 */
export function effectInWords(
	rules: TimingRules,
	grants: MergedGrants,
	{ reckoning, endedAt }: { reckoning: Reckoning; endedAt: number | null },
	zone: string
): string {
	const ends = endedAt ?? reckoning.latestFinish;
	const base = rules.limitMinutes;
	const total = allottedMinutes(rules, grants);
	const own = grants.window
		? `, own window ${clockTime(grants.window.opens, zone)}${grants.window.closes === null ? '' : ` to ${timeAndDate(grants.window.closes, zone, grants.window.opens)}`}`
		: '';
	const verb = endedAt === null ? 'ends' : 'ended';
	const latest = endedAt === null && reckoning.origin === null ? ' at the latest' : '';
	const until = `${own}${ends === null ? '' : `, ${verb} ${timeAndDate(ends, zone, reckoning.window.opens)}${latest}`}`;
	if (base === null || total === null) return `no time limit${until}`;
	const added = total - base;
	const credits = grants.creditsMinutes > 0 ? ` and ${grants.creditsMinutes} min given back` : '';
	if (added === 0) return `${base} min${credits}${until}`;
	const capped = rules.maxLimitMinutes !== null && total === rules.maxLimitMinutes ? ' (the most the rules allow)' : '';
	return `${base} + ${added} = ${total} min${credits}${capped}${until}`;
}
