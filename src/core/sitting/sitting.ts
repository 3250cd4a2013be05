import type { Stop } from '../time';

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
	/** While set aside: where it came from. */
	setAsideFrom: SittingState | null;
	/** The one device it is bound to. */
	device: Device | null;
	/** How many devices have been bound so far; answers are ordered by device first, then by sequence. */
	epoch: number;
	/** The last other device that was refused while one was bound. */
	otherDevice: { name: string; at: number } | null;
	beganAt: number | null;
	stops: Stop[];
	/** null: never connected. */
	line: { up: boolean; since: number } | null;
	/** Since when it is in its state. */
	since: number;
	/** Why it was turned away, held, handed in by staff or set aside. */
	reason: string | null;
	/** `countsNothing`: it ran out under a rule sheet by which what is not handed in counts nothing. */
	ended: { by: Role; at: number; receipt: string; countsNothing?: true } | null;
	/** Commands already carried out: a repeated one has no second effect. */
	commandIds: string[];
};

export type Device = { id: string; name: string; epoch: number };

export function newSitting(id: string, sessionId: string, at: number): Sitting {
	return {
		id,
		sessionId,
		state: 'expected',
		heldFrom: null,
		setAsideFrom: null,
		device: null,
		epoch: 0,
		otherDevice: null,
		beganAt: null,
		stops: [],
		line: null,
		since: at,
		reason: null,
		ended: null,
		commandIds: []
	};
}

/** Whether work on it may still go on, in this session or another. */
export function isUnfinished(state: SittingState): boolean {
	return !(['handed_in', 'time_up', 'absent', 'set_aside'] as SittingState[]).includes(state);
}
