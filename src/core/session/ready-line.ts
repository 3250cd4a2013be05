/** One thing that must be right on the day: whether it is, who can settle it, and where. */
export type ReadyLine = {
	key: string;
	state: 'done' | 'open' | 'blocked';
	text: string;
	detail?: string;
	/** Who can settle it; nobody has to when it is done. */
	who?: string;
	href?: string;
};
