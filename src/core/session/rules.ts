import type { MarkingRules } from '../marking';
import type { OrderRules } from '../paper';
import type { TimingRules } from '../time';

/** A session's own copy of its rule sheet. */
export type SessionRules = {
	timing: TimingRules;
	order: OrderRules;
	/** Who lets candidates in. */
	admission: 'proctor' | 'automatic';
	startWord: string | null;
	finishWord: string | null;
	/** One question at a time, or all on one page. */
	shown: 'one' | 'all';
	marking: MarkingRules;
};

/** What a session is for. A rehearsal counts for nothing. */
export type SessionKind = 'live' | 'rehearsal' | 'make_up';

export const KIND_NAMES: Record<SessionKind, string> = { live: 'Live', rehearsal: 'Rehearsal', make_up: 'Make-up' };

/** The safe choices, from which a new session starts. */
export const DEFAULT_RULES: SessionRules = {
	timing: {
		limitMinutes: 60,
		clockStarts: 'candidate',
		clockStops: 'hold',
		atClose: 'finish',
		doorOpensMinutes: 15,
		lastEntryMinutes: 15,
		graceMinutes: 1,
		atTimeUp: 'hand_in',
		warnAtMinutes: [10, 5, 1],
		maxLimitMinutes: 450
	},
	order: { questionsInOwnOrder: true, choicesInOwnOrder: true },
	admission: 'proctor',
	startWord: null,
	finishWord: null,
	shown: 'one',
	marking: { wrong: 'free' }
};
