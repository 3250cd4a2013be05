import type { CalculatorKind } from '../calculator';
import type { Visit } from '../sitting';
import type { MergedGrants, Window } from '../time';

/** How far a grant reaches: for good, or for one administration, paper or session. */
export type GrantScope =
	| { kind: 'standing' }
	| { kind: 'administration'; id: string }
	| { kind: 'paper'; id: string }
	| { kind: 'session'; id: string };

/** What is given. */
export type GrantBody =
	/** A multiplier of the limit (1 for none), or minutes on top of it. */
	| { kind: 'extra_time'; factor: number; minutes: number }
	| { kind: 'unlimited_time' }
	| { kind: 'own_window'; opens: number; closes: number }
	/** Lost time given back. */
	| { kind: 'credit'; minutes: number }
	/** May be reopened on a later day than it was handed in. */
	| { kind: 'reopen' }
	/** Sits apart from the others. */
	| { kind: 'separate_room' }
	/** So many breaks of so many minutes, the clock stopped. */
	| { kind: 'breaks'; count: number; minutes: number }
	/** How the paper is to look: enlarged, with strong contrast. */
	| { kind: 'display'; magnification: number; contrast: boolean }
	/** A calculator, also where the rules have none or a lesser one. */
	| { kind: 'tools'; calculator: CalculatorKind };

/** Anything given to one candidate beyond the rule sheet. Withdrawn, never deleted. */
export type Grant = {
	id: string;
	/** null: everyone in the session that the scope names. */
	candidateId: string | null;
	scope: GrantScope;
	body: GrantBody;
	reason: string;
	givenBy: string;
	givenAt: number;
	withdrawnAt: number | null;
};

/** The sitting that a merge is for. */
export type GrantPlace = {
	candidateId: string;
	administrationId: string;
	paperId: string;
	sessionId: string;
	/** Its stays in sessions, the present one last; without any, only the present session is looked at. */
	visits?: Visit[];
};

/** One answer, and the sentences that say where it came from. */
export type Merge = {
	grants: MergedGrants;
	mayReopen: boolean;
	separateRoom: boolean;
	/** How the paper is to look at first; the candidate may change it. */
	display: { magnification: number; contrast: boolean };
	/** Breaks that may be taken, the clock stopped; the longest grant counts. */
	breaks: { count: number; minutes: number } | null;
	/** The calculator that was granted; null: what the rules say. */
	calculator: CalculatorKind | null;
	reasons: string[];
	ownWindow: Window | null;
};
