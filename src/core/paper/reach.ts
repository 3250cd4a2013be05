/** Who can get at a version of a paper: the sessions that use it and have not ended, and how many are at work on it. */
export type Reach = {
	title: string;
	version: number;
	/** null: it is offered. */
	withdrawn: { at: number; by: string; why: string } | null;
	sessions: { id: string; name: string; opens: number; zone: string; candidates: number; working: number }[];
	/** Sittings that are over, or began elsewhere: they stay readable. */
	over: number;
};
