import type { Role } from './sitting';

/** What happened, in the past tense, with all that `evolve` needs to know of it. */
export type SittingEventBody =
	| { kind: 'arrived'; sessionId: string; deviceId: string; deviceName: string }
	| { kind: 'turned_away'; reason: string }
	| { kind: 'let_in' }
	| { kind: 'began' }
	| { kind: 'held'; reason: string; stopsClock: boolean; isBreak?: true }
	| { kind: 'resumed' }
	| { kind: 'device_freed' }
	| { kind: 'other_device_refused'; deviceName: string }
	| { kind: 'handed_in'; receipt: string; reason: string | null }
	| { kind: 'time_ran_out'; receipt: string; outcome: 'handed_in' | 'counts_nothing' }
	| { kind: 'carried_over'; reason: string | null }
	| { kind: 'marked_absent' }
	| { kind: 'reopened'; reason: string }
	| { kind: 'set_aside'; reason: string }
	| { kind: 'restored' }
	| { kind: 'expected_again' }
	| { kind: 'assigned'; sessionId: string }
	| { kind: 'line_lost'; since: number }
	| { kind: 'line_back' };

export type SittingEvent = SittingEventBody & { at: number; by: Role; commandId: string };
export type SittingEventKind = SittingEventBody['kind'];
