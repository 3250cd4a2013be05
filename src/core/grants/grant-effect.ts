import type { Span } from './day';
import type { Proposal } from './find-slots';
import type { Called } from './grant';

/** What a grant would do to one sitting, told before it is saved. */
export type GrantEffect = {
	sittingId: string;
	name: string;
	session: string;
	before: string;
	after: string;
	/** What does not fit, a sentence each; it does not stop the grant. */
	misfits: string[];
	/** What else should be known before it is given: they have handed in, no window is needed. */
	notes: string[];
};

/** One person's day as it would be, drawn before a grant is saved. */
export type DayLook = {
	zone: string;
	/** When everyone sits, and their own window. */
	base: { opens: number; closes: number | null };
	own: { opens: number; closes: number | null } | null;
	work: { from: number; to: number | null };
	commitments: (Span & { title: string })[];
	hours: Span | null;
	/** Minutes that they need; null: no limit. */
	minutes: number | null;
	/** Windows that do, nearest to the common time first. */
	proposals: Proposal[];
	/** What they will read. */
	told: string[];
	/** Where and with whom they could sit, to be chosen. */
	rooms: Called[];
	proctors: Called[];
};

/** All that is told before a grant is saved. */
export type Foreseen = {
	effects: GrantEffect[];
	/** With one person. */
	look: DayLook | null;
};
