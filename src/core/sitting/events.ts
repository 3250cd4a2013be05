import type { TimingRules } from '../time';
import type { DeviceNote, Role, Work } from './sitting';

/** What happened, in the past tense, with all that `evolve` needs to know of it. */
export type SittingEventBody =
	| { kind: 'arrived'; sessionId: string; deviceId: string; deviceName: string; unsigned?: true }
	| { kind: 'turned_away'; reason: string }
	| { kind: 'let_in' }
	/** `clockStartedAt`: the room's, which it shares; null: its own starts with the first question. */
	| { kind: 'began'; clockStartedAt?: number | null }
	| { kind: 'clock_started'; startedAt: number }
	| { kind: 'held'; reason: string; stopsClock: boolean; isBreak?: true }
	| { kind: 'resumed' }
	| { kind: 'device_freed' }
	| { kind: 'other_device_refused'; deviceName: string }
	| { kind: 'device_noted'; what: DeviceNote; deviceName: string }
	/** `leftMs`: of the working time, where the candidate handed in and there is a limit. */
	/** `overSince`: when the working time was up, where that was before the end: what is opened again goes on from there. */
	| { kind: 'handed_in'; receipt: string; reason: string | null; leftMs?: number; overSince?: number; work?: Work }
	| { kind: 'time_ran_out'; receipt: string; outcome: 'handed_in' | 'counts_nothing'; overSince?: number; work?: Work }
	| { kind: 'carried_over'; reason: string | null; clockStops?: TimingRules['clockStops'] }
	| { kind: 'marked_absent' }
	| { kind: 'taken_from_paper'; receipt: string; reason: string; work?: Work }
	| { kind: 'reopened'; reason: string }
	| { kind: 'set_aside'; reason: string }
	| { kind: 'restored' }
	| { kind: 'continued_later'; reason: string; clockStops: TimingRules['clockStops'] }
	| { kind: 'fresh_allowed'; reason: string }
	| { kind: 'expected_again' }
	| { kind: 'taken_back' }
	| { kind: 'assigned'; sessionId: string }
	| { kind: 'line_lost'; since: number }
	| { kind: 'line_back' }
	/** The server was not there since `from`; nobody could answer. */
	| { kind: 'server_away'; from: number };

export type SittingEvent = SittingEventBody & { at: number; by: Role; commandId: string };
export type SittingEventKind = SittingEventBody['kind'];

/** Every kind, for whoever reads events among other entries of the logbook. */
const KINDS: Record<SittingEventKind, true> = {
	arrived: true,
	server_away: true,
	turned_away: true,
	let_in: true,
	began: true,
	clock_started: true,
	held: true,
	resumed: true,
	device_freed: true,
	other_device_refused: true,
	device_noted: true,
	handed_in: true,
	time_ran_out: true,
	carried_over: true,
	marked_absent: true,
	taken_from_paper: true,
	reopened: true,
	set_aside: true,
	restored: true,
	continued_later: true,
	fresh_allowed: true,
	expected_again: true,
	taken_back: true,
	assigned: true,
	line_lost: true,
	line_back: true
};

/** Whether an entry of that kind is an event of the sitting, which `evolve` understands. */
export function isSittingEvent(kind: string): kind is SittingEventKind {
	return Object.hasOwn(KINDS, kind);
}
