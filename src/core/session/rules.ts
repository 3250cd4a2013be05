import type { Band, MarkingRules } from '../marking';
import type { FormRule, OrderRules } from '../paper';
import type { TimingRules } from '../time';

/** How the door is passed. */
export type DoorRules = {
	/** One code for the day, or one that turns every few minutes. */
	code: 'fixed' | 'turning';
	turnsEveryMinutes: number;
	/** A candidate's own printed or sent code, besides the door's. */
	slips: boolean;
	/** What a candidate gives besides the code. */
	identity: 'number_and_family' | 'names_and_birthday' | 'slip';
	/** Whether candidates look their device over at the door, before the lock closes. */
	checklist: 'none' | 'offered' | 'needed';
	/** Ids of the networks from which the door is passed; none: from anywhere. */
	networks: string[];
	/** So many days before, candidates see the session on their own page; null: as soon as it is planned. */
	shownDaysBefore: number | null;
	/** The candidate's photo stands on the paper, where there is one, so that a swap is seen. */
	photoOnPaper: boolean;
};

/** What the candidate's device may do meanwhile. */
export type LockdownRules = {
	level: 'open' | 'watched' | 'sealed';
	/** How often the screen may be left before `onLeaving` acts. */
	leavingsAllowed: number;
	onLeaving: 'warn' | 'hold' | 'hand_in';
	/** The oldest sealed client that is let in. */
	clientVersion: string;
	/** Addresses outside that may be opened. */
	sites: string[];
	printing: boolean;
	tablets: boolean;
	alsoForReview: boolean;
	/** A picture from the camera every so many seconds; null: none. */
	snapshotSeconds: number | null;
	/** After so many days the pictures are deleted. */
	snapshotDays: number;
};

/** How one moves through the paper. */
export type MovementRules = {
	shown: 'one' | 'pages' | 'all';
	/** Questions a page, when shown in pages. */
	perPage: number;
	goingBack: boolean;
	answerToGoOn: boolean;
	answerAll: boolean;
};

export type ToolRules = {
	calculator: 'none' | 'basic' | 'scientific';
	notes: boolean;
	marking: boolean;
	hints: boolean;
	/** Choices can be struck out. */
	striking: boolean;
	/** The device's own voice reads the questions. */
	readAloud: boolean;
};

/** What holds instead for those who do not sit in the room. */
export type ElsewhereRules = {
	admission: 'proctor' | 'automatic';
	/** The door's networks are the room's, and do not bind them. */
	anyNetwork: boolean;
	/** null: as for those in the room. */
	snapshotSeconds: number | null;
};

/** Breaks that everyone may take, when they like. */
export type PauseRules = { most: number; minutes: number; stopsClock: boolean };

export type AttemptRules = {
	most: number;
	counts: 'highest' | 'mean' | 'first' | 'last';
	/** Between the first attempt and the second. */
	waitMinutes: number;
	/** Between any later two. */
	laterWaitMinutes: number;
	/** For practice: a further attempt begins with the answers of the one before. */
	startsFromLast: boolean;
};

/** What a candidate may see afterwards, and from when. */
export type ReviewRules = {
	shows: 'nothing' | 'score' | 'own_answers' | 'key';
	when: 'at_once' | 'session_ended' | 'all_finished';
};

/** What comes of answers that are faster than reading takes. */
export type PaceRules = { watched: boolean; holds: boolean };

/** `bands` tell more finely than the pass mark what a result is. */
export type ResultRules = {
	passPercent: number | null;
	bands: Band[];
	/** From this share of a topic’s points on it is credited. */
	creditPercent: number;
};

/** A session's own copy of its rule sheet. */
export type SessionRules = {
	timing: TimingRules;
	door: DoorRules;
	/** Who lets candidates in. */
	admission: 'proctor' | 'automatic';
	elsewhere: ElsewhereRules;
	startWord: string | null;
	finishWord: string | null;
	/** What whoever closed or reloaded the paper needs to go on: nothing, the proctor's release; `never` hands in. */
	comingBack: 'free' | 'released' | 'never';
	pauses: PauseRules;
	lockdown: LockdownRules;
	movement: MovementRules;
	/** `forms`: which form of a paper that has several comes to whom. */
	order: OrderRules & { forms: FormRule };
	tools: ToolRules;
	attempts: AttemptRules;
	review: ReviewRules;
	pace: PaceRules;
	result: ResultRules;
	marking: MarkingRules;
};

/** What a session is for. A rehearsal counts for nothing. */
export type SessionKind = 'live' | 'rehearsal' | 'make_up';

export const KIND_NAMES: Record<SessionKind, string> = { live: 'Live', rehearsal: 'Rehearsal', make_up: 'Make-up' };

/** The safe choices, from which a new session starts. */
export const DEFAULT_RULES: SessionRules = {
	timing: {
		limitMinutes: 60,
		questionSeconds: null,
		endedBy: 'clock',
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
	door: {
		code: 'fixed',
		turnsEveryMinutes: 5,
		slips: false,
		identity: 'number_and_family',
		checklist: 'offered',
		networks: [],
		shownDaysBefore: null,
		photoOnPaper: false
	},
	admission: 'proctor',
	elsewhere: { admission: 'proctor', anyNetwork: true, snapshotSeconds: null },
	startWord: null,
	finishWord: null,
	comingBack: 'free',
	pauses: { most: 0, minutes: 5, stopsClock: false },
	lockdown: {
		level: 'open',
		leavingsAllowed: 3,
		onLeaving: 'warn',
		clientVersion: '1.0',
		sites: [],
		printing: false,
		tablets: true,
		alsoForReview: true,
		snapshotSeconds: null,
		snapshotDays: 30
	},
	movement: { shown: 'one', perPage: 5, goingBack: true, answerToGoOn: false, answerAll: false },
	order: { questionsInOwnOrder: true, choicesInOwnOrder: true, forms: 'dealt' },
	tools: { calculator: 'none', notes: true, marking: true, hints: false, striking: true, readAloud: true },
	attempts: { most: 1, counts: 'highest', waitMinutes: 0, laterWaitMinutes: 0, startsFromLast: false },
	review: { shows: 'nothing', when: 'all_finished' },
	pace: { watched: true, holds: false },
	result: { passPercent: null, bands: [], creditPercent: 80 },
	marking: { wrong: 'free', points: 0.25, earlyMinutes: null, earlyPoints: 1 }
};

/** Rules as they were stored, perhaps by an earlier version, with what they do not say at its default. */
export function completeRules(stored: Partial<SessionRules> & { shown?: 'one' | 'all' }): SessionRules {
	const { shown, ...known } = stored;
	const rules = { ...DEFAULT_RULES, ...known };
	for (const part of [
		'timing',
		'door',
		'elsewhere',
		'pauses',
		'lockdown',
		'movement',
		'order',
		'tools',
		'attempts',
		'review',
		'pace',
		'result',
		'marking'
	] as const)
		Object.assign(rules, { [part]: { ...DEFAULT_RULES[part], ...known[part] } });
	// Before there were two waits, the one held between any two attempts.
	if (known.attempts?.laterWaitMinutes === undefined && known.attempts)
		rules.attempts = { ...rules.attempts, laterWaitMinutes: rules.attempts.waitMinutes };
	if (shown && !known.movement) rules.movement = { ...rules.movement, shown };
	return rules;
}
