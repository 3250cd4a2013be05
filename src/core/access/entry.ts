import type { Reckoning } from '../time';

/** Why the door refuses somebody. None of them says which part of an identity was wrong. */
export const ENTRY_REFUSALS = {
	code_unknown: {
		message: 'No session is open with this code.',
		instead: 'Check it against the board: seven letters and digits. Capitals and dashes do not matter.'
	},
	code_expired: { message: 'This code is no longer valid.', instead: 'Ask the proctor for the one on the board now.' },
	identity_unknown: {
		message: 'We could not find you with these details.',
		instead:
			'Check the code on the board, the number on your card and your family name as registered, or ask the proctor.'
	},
	door_closed: { message: 'The door is not open yet.', instead: 'Stay on this page: it opens automatically.' },
	past_last_entry: {
		message: 'The last entry has passed.',
		instead: 'Speak to the proctor: they can give you a window of your own.'
	},
	window_over: { message: 'The time for this paper is over.', instead: 'Speak to the proctor about another window.' },
	session_ended: { message: 'This session has ended.', instead: 'Speak to the proctor about another session.' },
	off_network: {
		message: 'This paper can only be sat from the networks of its site.',
		instead: 'Join the room’s network, or ask the proctor.'
	},
	no_tablets: {
		message: 'This paper can’t be sat on a tablet.',
		instead: 'Use a computer, or ask the proctor for one.'
	},
	not_on_list: {
		message: 'You are not on the list of this session.',
		instead: 'Your proctor can see this and can add you. Stay here and try again in a moment.'
	},
	wrong_session: {
		message: 'You are expected elsewhere.',
		instead: 'If you should be here instead, speak to the proctor: they can see that you tried.'
	},
	step_closed: {
		message: 'This paper is not open for you yet.',
		instead: 'Your proctor can see this.'
	},
	slip_needed: {
		message: 'This session is entered with a slip.',
		instead: 'Type the code on your own slip instead of the one on the board.'
	},
	names_needed: {
		message: 'Here you sign in with your names and your birthday.',
		instead: 'Enter both names as registered, and the day and month of your birth.'
	},
	too_many_tries: {
		message: 'Too many tries in a short time.',
		instead: 'Wait a little, check the board, then try again.'
	}
} as const;

export type EntryRefusal = keyof typeof ENTRY_REFUSALS;
export type Entry = { ok: true } | { ok: false; code: EntryRefusal };

/**
 * Whether the door lets somebody arrive.
 * Whoever began before may come back past the last entry: that rule is for arrivals, not for a dropped line.
 */
export function judgeEntry(at: { reckoning: Reckoning; begun: boolean; sessionEnded: boolean; now: number }): Entry {
	const { reckoning, begun, sessionEnded, now } = at;
	if (sessionEnded && !reckoning.ownWindow) return { ok: false, code: 'session_ended' };
	if (now < reckoning.doorOpens) return { ok: false, code: 'door_closed' };
	if (begun) return { ok: true };
	if (reckoning.phase === 'over') return { ok: false, code: 'window_over' };
	if (reckoning.lastEntry !== null && now > reckoning.lastEntry) return { ok: false, code: 'past_last_entry' };
	return { ok: true };
}
