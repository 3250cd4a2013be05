import type { KeptBecause } from '../logbook';
import type { SessionKind } from '../session';
import type { PaceLevel } from '../pace';
import type { Noted, SittingState } from '../sitting';

/** One candidate as the live room shows them. Instants in epoch ms. */
export type SeatView = {
	/** The sitting's id. */
	id: string;
	number: string;
	name: string;
	seat: string | null;
	/** They do not sit in the room. */
	elsewhere: boolean;
	state: SittingState;
	heldFrom: SittingState | null;
	/** On hold for a break that was granted: it ends by itself. */
	onBreak: boolean;
	/** Held by the rules of the sheet and not by a person. */
	heldBySystem: boolean;
	since: number;
	reason: string | null;
	line: { up: boolean; since: number } | null;
	device: string | null;
	/** Another device that was refused. */
	otherDevice: { name: string; at: number } | null;
	/** Its browser can't sign what it sends. */
	unsigned: boolean;
	/** What was noted of the device that is bound, and how often. */
	noted: Noted[];
	begun: boolean;
	/** When they came to the door here, and when they began; null: not yet, or not known. */
	arrivedAt: number | null;
	beganAt: number | null;
	/** Which attempt at the paper this is, from 1. */
	attempt: number;
	lastAnswerAt: number | null;
	/** How long their connection was lost while they worked, in ms, and how much of it the clock ran on. */
	lost: { ms: number; unpaidMs: number };
	/** Working time in all, in ms; null: no limit. */
	allotted: number | null;
	answered: number;
	marked: number;
	/** When work ends if nothing stops it; null: no limit, or the clock has not started. */
	deadline: number | null;
	/** Working time left at `reckonedAt`, in ms; null: no limit. */
	remaining: number | null;
	/** The clock has stopped. */
	standing: boolean;
	reckonedAt: number;
	/** `×1.5`, `+25`: what sets this candidate apart. */
	extra: string | null;
	ownWindow: { opens: number; closes: number | null } | null;
	/** The last instant of entry for this candidate. */
	lastEntry: number | null;
	receipt: string | null;
	/** The question on screen, from 0; null: not known. */
	at: number | null;
	/** The state that the device's screen has said it shows; null: not known. */
	shows: SittingState | null;
	/** The device's battery from 0 to 1, while it is not charging; null: charging or not known. */
	battery: number | null;
	/** A hand that is up. */
	hand: { text: string; at: number } | null;
	/** Messages that the candidate has not read yet, and since when. */
	unread: { count: number; since: number } | null;
	/** What the watched device did; null: nothing. */
	lapses: { left: number; tried: number; last: number; awaySince: number | null } | null;
	/** Answers that are kept without counting, as after a line that was down beyond the end, since when, and why; null: none. */
	heldBack: { count: number; since: number; because: KeptBecause[] } | null;
	/** How many answers count that came after the time, in the grace minutes or under rules that let work go on. */
	late: number;
	/** How fast answers come, and how many came faster than reading takes. */
	pace: PaceLevel;
	rapid: number;
	/** This sitting now belongs to another session. */
	movedOn: boolean;
};

/** The question on screen, from 0, the battery from 0 to 1 while it is not charging, and what the screen shows. */
export type Told = { at: number | null; battery: number | null; shows: SittingState | null };
export const NOTHING_TOLD: Told = { at: null, battery: null, shows: null };

/** The session above the room. */
export type RoomHead = {
	id: string;
	name: string;
	kind: SessionKind;
	paper: string;
	paperVersion: number;
	questions: number;
	/** How many stand on the roster, counted apart from the seats. */
	expected: number;
	room: string;
	rows: number;
	seatsPerRow: number;
	zone: string;
	opens: number;
	closes: number | null;
	doorOpens: number;
	lastEntry: number | null;
	limitMinutes: number | null;
	clockStarts: 'room' | 'candidate';
	clockStops: 'never' | 'hold' | 'hold_or_lost';
	doorCode: string | null;
	/** When it turns into another; null: it does not. */
	codeTurnsAt: number | null;
	codeHidden: boolean;
	startWord: string | null;
	finishWord: string | null;
	/** It is entered with slips, so that there are some to print. */
	slips: boolean;
	roomStartedAt: number | null;
	/** `proctor`: the paper is ended by hand, at `timeCalledAt`. */
	endedBy: 'clock' | 'proctor';
	graceMinutes: number;
	timeCalledAt: number | null;
	/** Work was allowed to begin before the opening. */
	openedEarlyAt: number | null;
	endedAt: number | null;
	lockdown: 'open' | 'watched' | 'sealed';
	leavingsAllowed: number;
	/** Whether the proctor's screen shows pictures from the camera. */
	snapshots: boolean;
	/** Who was refused at the door and stands before it. */
	refusals: DoorRefusal[];
	incidents: number;
};

/** Somebody whom the door refused. */
export type DoorRefusal = {
	id: string;
	/** Of the refusal, as the candidate was told it. */
	code: string;
	device: string;
	tries: number;
	at: number;
	/** After wrong tries the door makes them wait until then; null: they may try again. */
	waitsUntil: number | null;
	sittingId: string | null;
	candidate: { id: string; name: string; number: string } | null;
};

/** The whole room: what a watcher gets first. */
export type RoomPicture = { now: number; head: RoomHead; seats: SeatView[] };

/** What changed since. A new head only when it differs. */
export type RoomChange = {
	now: number;
	head?: RoomHead;
	seats: SeatView[];
	/** Sittings that no longer have a place here. */
	gone: string[];
};

/** The time is up and work still goes on: in the grace minutes, or where the rules let it, marked late. */
export function isPastTime(seat: Pick<SeatView, 'state' | 'deadline' | 'standing'>, now: number): boolean {
	return seat.state === 'working' && !seat.standing && seat.deadline !== null && now >= seat.deadline;
}

/** Working time left by the clock of `now`. */
export function remainingNow(
	seat: Pick<SeatView, 'remaining' | 'standing' | 'reckonedAt' | 'begun'>,
	now: number
): number | null {
	if (seat.remaining === null || seat.standing || !seat.begun) return seat.remaining;
	return Math.max(0, seat.remaining - (now - seat.reckonedAt));
}
