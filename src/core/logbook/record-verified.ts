/** What came of working the whole record out anew. */
export type RecordVerified = {
	entries: number;
	answers: number;
	/** Rows that decide results: marks, corrections, grants, keys, forms, sittings and what was decided about them. */
	rows: number;
	/** When an upgrade sealed all of those anew, ISO 8601. */
	sealedAnew: string[];
	head: string;
	/** Until when an anchor proves that nothing is cut off, ISO 8601; null: there is none. */
	anchoredAt: string | null;
	/** What is not as it was written; null: everything is. */
	broken: string | null;
};
