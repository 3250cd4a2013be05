import type { LockdownRules } from '../session';

/**
 * What a watched device does that it should not: `left` is a time away from the paper's screen, however it came about;
 * the others are single tries that the page prevented, and `second_screen` and `no_full_screen` tell what it found.
 */
export const LAPSE_KINDS = ['left', 'copy', 'paste', 'print', 'menu', 'second_screen', 'no_full_screen'] as const;
export type LapseKind = (typeof LAPSE_KINDS)[number];

/** An opened site that the rules allow is told apart from leaving, and does not count. */
export type Lapse = { kind: LapseKind | 'site'; from: number; to: number | null };

/** What staff and logbook call each. */
export const LAPSE_NAMES: Record<Lapse['kind'], string> = {
	left: 'Left the screen',
	copy: 'Tried to copy',
	paste: 'Tried to paste',
	print: 'Tried to print',
	menu: 'Opened the right-click menu',
	second_screen: 'Has a second screen',
	no_full_screen: 'This browser has no full screen',
	site: 'Opened an allowed site'
};

/** Shorter than this is a notification passing by, not somebody leaving. */
export const SHORTEST_LEAVING_MS = 700;

/** What the rule sheet does after so many times away. The allowed number itself is still allowed. */
export function reactionTo(
	rules: Pick<LockdownRules, 'leavingsAllowed' | 'onLeaving'>,
	left: number
): LockdownRules['onLeaving'] | 'nothing' {
	return left > rules.leavingsAllowed ? rules.onLeaving : 'nothing';
}

/** What a candidate is told when they come back. Calm, and never blaming. */
export function leavingInWords(
	rules: Pick<LockdownRules, 'leavingsAllowed' | 'onLeaving'>,
	left: number,
	awayMs: number
): string {
	const seconds = Math.max(1, Math.round(awayMs / 1_000));
	const away = `The paper was off your screen for ${seconds === 1 ? 'a second' : `${seconds} seconds`}, and your proctor can see that.`;
	const spare = rules.leavingsAllowed - left;
	if (rules.onLeaving === 'warn') return `${away} Please stay on this page.`;
	const then = rules.onLeaving === 'hold' ? 'your paper is paused until your proctor comes' : 'your paper is handed in';
	if (spare < 0) return away;
	return spare === 0
		? `${away} The next time ${then}.`
		: `${away} It may happen ${spare} more ${spare === 1 ? 'time' : 'times'}; then ${then}.`;
}
