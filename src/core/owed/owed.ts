import type { SittingState } from '../sitting';

/** Why somebody is owed a sitting. */
export const OWED_WHY = {
	absent: 'absent',
	carried_over: 'carried over, not finished',
	set_aside: 'set aside, to sit again'
} as const;
export type OwedWhy = keyof typeof OWED_WHY;

/** How a sitting stands, as far as that decides whether its candidate is owed something. */
export type Standing = {
	state: SittingState;
	/** Set aside to be sat again from the start. */
	allowsFresh: boolean;
	/** It has been in another session before the one that it is in now. */
	wasElsewhere: boolean;
	/** The session that it is in now has ended. */
	sessionEnded: boolean;
	/** When their own window is over; null: they have none. */
	ownWindowEnds: number | null;
	/** Somebody has decided, with a reason, that it is owed no longer. */
	isWaived: boolean;
};

/** `owed`: nothing is arranged. `arranged`: a session or window is to come. `waived`: settled by a decision. */
export type OwedState = { state: 'owed' | 'arranged' | 'waived'; why: OwedWhy } | null;

/**
 * Whether somebody is owed a sitting, and why; null: they are not. Derived from how the sitting stands, never entered:
 * whoever is absent, carried over or set aside to sit again, until a session or a window of their own is to come, the
 * sitting ends, or somebody waives it.
 */
export function owedState(one: Standing, now: number): OwedState {
	const why = whyOf(one);
	if (why === null) return null;
	if (one.isWaived) return { state: 'waived', why };
	const hasWindow = one.ownWindowEnds !== null && one.ownWindowEnds > now && why !== 'set_aside';
	const isPlanned = !one.sessionEnded && one.wasElsewhere && one.state !== 'absent' && why !== 'set_aside';
	return { state: hasWindow || isPlanned ? 'arranged' : 'owed', why };
}

function whyOf({ state, allowsFresh, wasElsewhere }: Standing): OwedWhy | null {
	switch (state) {
		case 'absent':
		case 'carried_over':
			return state;
		case 'set_aside':
			return allowsFresh ? 'set_aside' : null;
		// Absent before, and planned for another session since.
		case 'expected':
			return wasElsewhere ? 'absent' : null;
		default:
			return null;
	}
}

const DAY_MS = 86_400_000;

/** `since today`, `for 1 day`, `for 3 days`. */
export function owedFor(since: number, now: number): string {
	const days = Math.floor((now - since) / DAY_MS);
	if (days < 1) return 'since today';
	return `for ${days === 1 ? '1 day' : `${days} days`}`;
}
