import type { EntryRefusal } from '../access';
import type { TimingRules } from '../time';
import type { Actor, DeviceNote, Work } from './sitting';

/** What somebody wants to happen. */
export type CommandBody =
	/** `unsigned`: its browser can't sign what it sends. */
	| { kind: 'arrive'; sessionId: string; deviceId: string; deviceName: string; unsigned?: true }
	| { kind: 'turn_away'; reason: string }
	| { kind: 'let_in' }
	| { kind: 'begin' }
	/** The first question is on the screen. */
	| { kind: 'start_clock' }
	/** `isBreak`: one that was granted; the clock always stands still in it. */
	| { kind: 'hold'; reason: string; stopsClock: boolean; isBreak?: true }
	| { kind: 'resume' }
	| { kind: 'move_device' }
	| { kind: 'hand_in'; receipt: string; reason: string | null }
	| { kind: 'run_out'; receipt: string }
	| { kind: 'carry_over'; reason: string | null }
	| { kind: 'mark_absent' }
	/** Absent here, since they worked on paper: what they wrote has been typed in. */
	| { kind: 'take_from_paper'; receipt: string; reason: string }
	| { kind: 'reopen'; reason: string }
	| { kind: 'set_aside'; reason: string }
	| { kind: 'restore' }
	/** Handed in by mistake, or set aside for it: goes on another time, in another session or an own window. */
	| { kind: 'continue_later'; reason: string }
	/** Set aside, to sit the paper again from the start: another attempt may be planned, whatever the rules give. */
	| { kind: 'allow_fresh'; reason: string }
	| { kind: 'expect_again' }
	/** Undoes letting in, turning away or carrying over, as long as nothing else has happened since. */
	| { kind: 'take_back' }
	/** Put into another session: a make-up, or the one that continues it. */
	| { kind: 'assign'; sessionId: string }
	/** Beside the state: what the line does, and a second device that was refused. */
	| { kind: 'lose_line'; since: number }
	/** The server was not there since then; nobody could answer. */
	| { kind: 'note_away'; from: number }
	| { kind: 'regain_line' }
	| { kind: 'refuse_other_device'; deviceName: string }
	/** Something about the bound device that its proctor should know. */
	| { kind: 'note_device'; what: DeviceNote; deviceName: string };

export type CommandKind = CommandBody['kind'];

/** `id` makes a repeated command harmless: it is carried out once. */
export type Command = CommandBody & { id: string; by: Actor };

/** Everything `decide` may look at besides the sitting (see `circumstances`); core reads no clock. */
export type Context = {
	now: number;
	/** The place where this sitting may work is over: its session has ended and no own window is open. */
	sessionOver: boolean;
	/** For `arrive`: what the door says. */
	entry: { ok: true } | { ok: false; code: EntryRefusal };
	admission: 'proctor' | 'automatic';
	/** For `begin`. */
	startWord: Word;
	identityConfirmed: boolean;
	/** Whether the sealed client has proved itself; `not_asked` where the rules want none. */
	client: 'not_asked' | 'proven' | 'outdated' | 'missing';
	/** The device was looked over, where the rules ask for that. */
	deviceChecked: boolean;
	/** The clock starts with the room, and nobody has started it yet. */
	roomWaits: boolean;
	/** The window is not open yet, and nobody has started it early. */
	beforeOpening: boolean;
	/** When the room's clock started, where the sitting shares it; null: it gets a clock of its own. */
	roomClock: number | null;
	/** Which stops give their time back here: settled when the sitting is carried over. */
	clockStops: TimingRules['clockStops'];
	/** For `hand_in`, `run_out` and `take_from_paper`: what is handed in. */
	work: Work | null;
	/** For `hand_in` by the candidate. */
	finishWord: Word;
	/** Working time left if work went on now, in ms; null: no limit. */
	remaining: number | null;
	/** When it is up, by that clock; null: there is no limit, or no clock. */
	deadline: number | null;
	/** Answers are no longer taken. */
	over: boolean;
	/** Working time left for another day, whatever window closes here, in ms; null: no limit. */
	ownRemaining: number | null;
	/** What the rule sheet does when time is up. */
	atTimeUp: TimingRules['atTimeUp'];
	/** For `reopen`: it ended on the local day that `now` is in. */
	endedToday: boolean;
	/** For `reopen` on a later day: a grant says so. */
	reopenGranted: boolean;
	/** For `move_device` of what has ended: its candidate asks for a further attempt on another device. */
	sitsAgain: boolean;
};

export type Word = 'not_asked' | 'right' | 'wrong';
