import { MINUTE } from '../time';
import type { MarkingRules } from './mark';

/** What handing in early is worth, beyond all that the paper has. @param leftMs of the working time; null: it was not they who handed in, or there is no limit */
export function earlyPoints({ earlyMinutes = null, earlyPoints = 0 }: MarkingRules, leftMs: number | null): number {
	return earlyMinutes !== null && leftMs !== null && leftMs >= earlyMinutes * MINUTE ? earlyPoints : 0;
}

/** What candidates are told before they begin; null when handing in early earns nothing. */
export function earlyInWords({ earlyMinutes = null, earlyPoints = 0 }: MarkingRules): string | null {
	if (earlyMinutes === null || earlyPoints === 0) return null;
	const minutes = earlyMinutes === 1 ? 'a minute' : `${earlyMinutes} minutes`;
	return `Handing in with at least ${minutes} left gives ${earlyPoints} ${earlyPoints === 1 ? 'point' : 'points'} more.`;
}
