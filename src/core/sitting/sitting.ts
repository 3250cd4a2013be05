import type { Stop, Track } from '../time';

/** Every state a sitting can be in. Whether the line is up is beside the state, not one of them. */
export const SITTING_STATES = [
	'expected',
	'at_door',
	'let_in',
	'working',
	'on_hold',
	'carried_over',
	'handed_in',
	'time_up',
	'absent',
	'set_aside'
] as const;
export type SittingState = (typeof SITTING_STATES)[number];

/** What the staff's screens call each state. */
export const STATE_NAMES: Record<SittingState, string> = {
	expected: 'Expected',
	at_door: 'At the door',
	let_in: 'Let in',
	working: 'Working',
	on_hold: 'On hold',
	carried_over: 'Carried over',
	handed_in: 'Handed in',
	time_up: 'Time up',
	absent: 'Absent',
	set_aside: 'Set aside'
};

/** Who acts. What each may do stands in `table.ts`. */
export type Role = 'candidate' | 'proctor' | 'coordinator' | 'system';
export type Actor = { role: Role; id: string };

/** One candidate's own run at a paper: the fold of its events. It outlives a session when it is carried over. */
export type Sitting = {
	id: string;
	/** The session it belongs to now. */
	sessionId: string;
	state: SittingState;
	/** While on hold: where it came from. */
	heldFrom: SittingState | null;
	/** While on hold: who put it there. */
	heldBy: Role | null;
	/** While set aside: where it came from. */
	setAsideFrom: SittingState | null;
	/** From arriving until beginning: where it goes back to when it is turned away; null: it was at work before. */
	cameFrom: 'expected' | 'carried_over' | 'absent' | null;
	/** The one device it is bound to. */
	device: Device | null;
	/** How many devices have been bound so far; answers are ordered by device first, then by sequence. */
	epoch: number;
	/** The last other device that was refused while one was bound. */
	otherDevice: { name: string; at: number } | null;
	/** What was noted of its devices. */
	noted: Noted[];
	/** When it came to the door of the session that it is in; none: it has not, or before this was noted. */
	arrivedAt?: number;
	beganAt: number | null;
	/** When its own clock started; null: it has not begun, or the first question is not on its screen yet. */
	clockStartedAt: number | null;
	stops: Stop[];
	/** The sessions it was put into, in their order, the present one last. */
	visits: Visit[];
	/** On hold: since when its device can know of it; null: the line was down, so it can't. */
	holdKnownAt: number | null;
	/** null: never connected. */
	line: { up: boolean; since: number } | null;
	/** Since when it is in its state. */
	since: number;
	/** Why it was turned away, held, handed in by staff or set aside. */
	reason: string | null;
	/** `leftMs`: working time that the candidate had left. `countsNothing`: it ran out under a rule sheet by which what is not handed in counts nothing. */
	ended: { by: Role; at: number; receipt: string; countsNothing?: true; leftMs?: number; work?: Work } | null;
	/** Set aside to be sat again from the start: another attempt may be planned, whatever the rules give. */
	allowsFresh: boolean;
	/** How it was before staff let it in, turned it away or carried it over, as long as nothing has happened since. */
	before?: Before | null;
	/** Commands already carried out: a repeated one has no second effect. */
	commandIds: string[];
};

/** `unsigned`: its browser can't sign what it sends, so that whoever copies its cookie passes for it. */
export type Device = { id: string; name: string; epoch: number; unsigned?: true };

/**
 * What a proctor should know of the bound device. `forged`: something came with its cookie and without its signature.
 * `second_line`: its cookie, which nothing guards, is in use twice. `other_address`: it came from another address than
 * before. `signed_in_anew`: it went through the door once more.
 */
export const DEVICE_NOTES = ['forged', 'second_line', 'other_address', 'signed_in_anew'] as const;
export type DeviceNote = (typeof DEVICE_NOTES)[number];
/** What was handed in: how many answers, and the SHA-256 of all of them in base64url. */
export type Work = { answers: number; digest: string };

export type Noted = { what: DeviceNote; epoch: number; at: number; times: number };

/** What letting in, turning away and carrying over change. */
export type Before = Pick<
	Sitting,
	'state' | 'device' | 'otherDevice' | 'line' | 'cameFrom' | 'heldFrom' | 'heldBy' | 'holdKnownAt' | 'reason' | 'stops'
>;

/** A sitting's stay in one session. */
export type Visit = {
	sessionId: string;
	from: number;
	/** null: it is there now. */
	to: number | null;
	/** It had begun before it came here: what was given to all in this session before then was not for it. */
	begunBefore: boolean;
	/** It had begun by the time it left: what was given to it here stays with it. */
	begunWhenLeaving: boolean;
};

export function newSitting(id: string, sessionId: string, at: number): Sitting {
	return {
		id,
		sessionId,
		state: 'expected',
		heldFrom: null,
		heldBy: null,
		setAsideFrom: null,
		cameFrom: null,
		device: null,
		epoch: 0,
		otherDevice: null,
		noted: [],
		beganAt: null,
		clockStartedAt: null,
		stops: [],
		visits: [{ sessionId, from: at, to: null, begunBefore: false, begunWhenLeaving: false }],
		holdKnownAt: null,
		line: null,
		since: at,
		reason: null,
		ended: null,
		allowsFresh: false,
		commandIds: []
	};
}

/** Work on it may still go on, in this session or another. */
export const UNFINISHED = ['expected', 'at_door', 'let_in', 'working', 'on_hold', 'carried_over'] as const;
/** Its candidate is there, or has been and has only lost the device. */
export const IN_THE_ROOM = ['at_door', 'let_in', 'working', 'on_hold'] as const;
/** Its work has come to its end. */
export const ENDED = ['handed_in', 'time_up'] as const;

/** Whether work on it may still go on, in this session or another. */
export function isUnfinished(state: SittingState): boolean {
	return (UNFINISHED as readonly SittingState[]).includes(state);
}

export function isInTheRoom(state: SittingState): boolean {
	return (IN_THE_ROOM as readonly SittingState[]).includes(state);
}

export function hasEnded(state: SittingState): boolean {
	return (ENDED as readonly SittingState[]).includes(state);
}

/** At work, or on hold from it. */
export function isAtWork(sitting: Pick<Sitting, 'state' | 'heldFrom'>): boolean {
	return stateBehindHold(sitting) === 'working';
}

/** The state, or while on hold the one that it goes back to. */
export function stateBehindHold({ state, heldFrom }: Pick<Sitting, 'state' | 'heldFrom'>): SittingState {
	return state === 'on_hold' && heldFrom !== null ? heldFrom : state;
}

/** On hold by the rules, and not by a person. */
export function isHeldByRules({ state, heldBy }: Pick<Sitting, 'state' | 'heldBy'>): boolean {
	return state === 'on_hold' && heldBy === 'system';
}

/** The break that is going on; null: none is. A proctor's hold during a break takes its place. */
export function breakSince({ state, stops }: Pick<Sitting, 'state' | 'stops'>): number | null {
	if (state !== 'on_hold') return null;
	return stops.find((stop) => stop.why === 'break' && stop.to === null)?.from ?? null;
}

/**
 * Carried over and not back at work: its clock rests, so that no window ends it. At the door of its next session it is
 * under that session's window again, and can be told beforehand what the close would take.
 */
export function isResting(sitting: Pick<Sitting, 'cameFrom' | 'beganAt'>): boolean {
	return sitting.beganAt !== null && sitting.cameFrom === 'carried_over';
}

/** What happened to a sitting as time sees it. */
export function trackOf(sitting: Sitting, room: Pick<Track, 'roomStartedAt' | 'timeCalledAt'>): Track {
	const { beganAt, clockStartedAt, stops } = sitting;
	const { roomStartedAt, timeCalledAt } = room;
	const isCarriedOver = stateBehindHold(sitting) === 'carried_over';
	return { roomStartedAt, timeCalledAt, beganAt, clockStartedAt, isCarriedOver, stops };
}
