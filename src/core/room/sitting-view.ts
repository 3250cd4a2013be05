import type { MovementRules, SessionKind } from '../session';
import type { SittingState } from '../sitting';
import type { Phase } from '../time';

/** What a candidate's screen knows of their own sitting. Nothing of the key, of others, or of why somebody was held. */
export type SittingPicture = {
	now: number;
	sittingId: string;
	state: SittingState;
	/** Which device the sitting is bound to; a device with another number has been freed. null: none. */
	epoch: number | null;
	begun: boolean;
	candidate: { name: string; number: string; seat: string | null };
	paper: { title: string; questions: number; points: number };
	session: {
		kind: SessionKind;
		room: string;
		zone: string;
		movement: MovementRules;
		/** Whether questions can be marked for later. */
		marking: boolean;
		asksStartWord: boolean;
		asksFinishWord: boolean;
		/** The clock starts with the room, which has not been started. */
		roomWaits: boolean;
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
		/** What becomes of work when time is up. */
		atTimeUp: 'hand_in' | 'stop' | 'flag' | 'zero';
	};
	ended: { at: number; receipt: string; byCandidate: boolean } | null;
	/** Why they were sent back from the door; shown to them. */
	turnedAway: string | null;
};
