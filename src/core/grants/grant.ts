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
	/** `room` and `proctor`: where it is sat and who is with them, where that is not as for the others. */
	| { kind: 'own_window'; opens: number; closes: number; room?: Called; proctor?: Called }
	/** Lost time given back. */
	| { kind: 'credit'; minutes: number }
	/** May be reopened on a later day than it was handed in. */
	| { kind: 'reopen' }
	/** Sits apart from the others. */
	| { kind: 'separate_room' }
	/** So many breaks of so many minutes, the clock stopped. */
	| { kind: 'breaks'; count: number; minutes: number }
	/** How the paper is to look at first; the candidate may change it. Grants of before know only of the first two. */
	| {
			kind: 'display';
			magnification: number;
			contrast: boolean;
			colours?: GrantedLook;
			spacing?: number;
			ruler?: boolean;
	  }
	/** Questions are read aloud by the device, also where the rules allow nobody that. */
	| { kind: 'read_aloud' }
	/** Another aid, in words that the candidate and the proctor read. */
	| { kind: 'aid'; name: string }
	/** A calculator, also where the rules have none or a lesser one. */
	| { kind: 'tools'; calculator: CalculatorKind }
	/** Attempts beyond those that the rules give. */
	| { kind: 'extra_attempt'; count: number }
	/** May stop, and go on another day. */
	| { kind: 'continue_later' }
	/** The language in which the paper is read at first, BCP 47. */
	| { kind: 'language'; tag: string }
	/** Somebody sits beside them. */
	| { kind: 'beside'; as: Beside; name: string }
	/** The paper is there on paper as well. */
	| { kind: 'paper_copy' }
	/** Questions and choices stand in an order of their own, also where the rules keep the paper's. */
	| { kind: 'other_form' };
export type GrantKind = GrantBody['kind'];

/** Colours that a paper can be given in at first. */
export const GRANTED_LOOKS = ['light', 'strong', 'night', 'sand'] as const;
export type GrantedLook = (typeof GRANTED_LOOKS)[number];

/** Somebody or something by its name, kept with what names it. */
export type Called = { id: string; name: string };
/** What somebody beside a candidate does for them. */
export const BESIDE = ['reader', 'scribe', 'assistant'] as const;
export type Beside = (typeof BESIDE)[number];

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
	/** Holds for sessions that open from then on, and until before then; none: always. Epoch ms. */
	from?: number | null;
	until?: number | null;
	/** Who asked for it, in their words. */
	askedBy?: string;
	/** By whom it came: given by hand, or from a needs profile or a file of people. */
	source?: GrantSource;
	/** What was given together and can be taken back together. */
	batch?: string | null;
	/** The id of the file that was shown for it. */
	evidence?: string | null;
};
export type GrantSource = 'hand' | 'profile';

/** The sitting that a merge is for. */
export type GrantPlace = {
	candidateId: string;
	administrationId: string;
	paperId: string;
	sessionId: string;
	/** When the session opens; what holds only for a time is asked of that. */
	opens?: number;
	/** Its stays in sessions, the present one last; without any, only the present session is looked at. */
	visits?: Visit[];
};

/** One answer, and the sentences that say where it came from. */
export type Merge = {
	grants: MergedGrants;
	mayReopen: boolean;
	separateRoom: boolean;
	/** How the paper is to look at first; the candidate may change it. */
	display: {
		magnification: number;
		contrast: boolean;
		colours: GrantedLook | null;
		/** Of lines, as a share of the letters' height; null: as usual. */
		spacing: number | null;
		ruler: boolean;
	};
	readAloud: boolean;
	/** Other aids, in words. */
	aids: string[];
	/** Breaks that may be taken, the clock stopped; the longest grant counts. */
	breaks: { count: number; minutes: number } | null;
	/** The calculator that was granted; null: what the rules say. */
	calculator: CalculatorKind | null;
	extraAttempts: number;
	/** The language that was granted, BCP 47; null: what is known of the candidate. */
	language: string | null;
	beside: { as: Beside; name: string }[];
	paperCopy: boolean;
	otherForm: boolean;
	reasons: string[];
	ownWindow: Window | null;
	/** Where that is sat and who is with them; null: as for the others. */
	room: Called | null;
	proctor: Called | null;
};
