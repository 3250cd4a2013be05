/** What came of working the whole record out anew. */
export type RecordVerified = {
	entries: number;
	answers: number;
	head: string;
	/** Until when an anchor proves that nothing is cut off, ISO 8601; null: there is none. */
	anchoredAt: string | null;
	/** What is not as it was written; null: everything is. */
	broken: string | null;
};
