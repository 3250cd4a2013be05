import type { Merge } from '../grants';
import type { LockdownRules, MovementRules, SessionKind, ToolRules } from '../session';
import type { SittingState } from '../sitting';
import type { Phase, QuestionTime } from '../time';
import type { ToldSubject } from '../told';

/** What a candidate's screen knows of their own sitting. Nothing of the key, of others, or of why somebody was held. */
export type SittingPicture = {
	now: number;
	sittingId: string;
	state: SittingState;
	/** Which device the sitting is bound to; a device with another number has been freed. null: none. */
	epoch: number | null;
	begun: boolean;
	candidate: { name: string; number: string; seat: string | null };
	/** `instructions`: what its author says before anybody begins. */
	paper: { title: string; questions: number; points: number; instructions: string | null; language: string };
	session: {
		kind: SessionKind;
		room: string;
		zone: string;
		movement: MovementRules;
		tools: ToolRules;
		/** A calculator was granted: they have it beside every question. */
		hasOwnCalculator: boolean;
		/** What the page prevents, logs and does; null: nothing is watched. */
		watch:
			| (Pick<LockdownRules, 'level' | 'leavingsAllowed' | 'onLeaving' | 'sites' | 'printing' | 'alsoForReview'> & {
					left: number;
			  })
			| null;
		snapshotSeconds: number | null;
		/** The device is to be looked over before work begins. */
		checklist: 'none' | 'offered' | 'needed';
		asksStartWord: boolean;
		asksFinishWord: boolean;
		/** What a wrong answer costs, in a sentence; null: nothing. */
		wrongAnswers: string | null;
		/** Questions on a page where nobody may go back; null: they may, or everything is on one page. */
		forwardBy: number | null;
		/** The clock starts with the room, which has not been started. */
		roomWaits: boolean;
		/** Their photo stands beside their name. */
		showsPhoto: boolean;
	};
	time: {
		phase: Phase;
		opens: number;
		/** Milliseconds granted; null: no limit. */
		allotted: number | null;
		deadline: number | null;
		graceEnds: number | null;
		remaining: number | null;
		standing: boolean;
		/** What the close takes, if they began now. */
		cut: number;
		warnAtMinutes: number[];
		/** The proctor ends the paper: there is no deadline before that. */
		isEndedByHand: boolean;
		/** When they began; null: they have not. */
		since: number | null;
		/** When the paper is meant to be over that its proctor ends; null: nothing is known, or the clock says so. */
		plannedEnd: number | null;
		/** What becomes of work when time is up. */
		atTimeUp: 'hand_in' | 'stop' | 'flag' | 'zero';
		/** The time of the question that was shown last; null: none has a time of its own. */
		question: QuestionTime | null;
	};
	/** Everything that binds them, until they begin; empty from then on. */
	told: ToldSubject[];
	/** How the paper is to look at first, and in which language, where it is there in it; null: its own. */
	display: Merge['display'] & { language: string | null };
	/** Breaks that may be taken; null: none. */
	breaks: { left: number; minutes: number; stopsClock: boolean; until: number | null } | null;
	/** Something may be seen afterwards, now or later. */
	mayReview: boolean;
	/** A further attempt that the rules give, and from when, epoch ms; `from` null: at once. null: there is none. */
	again: { attempt: number; most: number; from: number | null } | null;
	attempt: number;
	/** What the proctor said and the candidate has not yet read. */
	messages: { id: string; text: string; at: number }[];
	/** The hand that is up. */
	hand: { text: string; at: number } | null;
	/** `by`: who handed in; the rules do when time is up, or when the screen was left too often. */
	ended: { at: number; receipt: string; by: 'candidate' | 'staff' | 'rules'; countsNothing: boolean } | null;
	/** Why they were sent back from the door; shown to them. */
	turnedAway: string | null;
	/** On hold by the rules, and not by a person. */
	heldByRules: boolean;
};
