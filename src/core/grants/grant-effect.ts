/** What a grant would do to one sitting, told before it is saved. */
export type GrantEffect = {
	sittingId: string;
	session: string;
	before: string;
	after: string;
	/** What does not fit, in a sentence; it does not stop the grant. */
	misfit: string | null;
};
