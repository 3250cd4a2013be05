import type { Query } from '../db';

/** A closing, as it was done. */
export type Closing = {
	at: number;
	by: string;
	/** Who closed with them, where nobody was there who supervised none of it. */
	second: string | null;
	archive: string;
	sha256: string;
	bytes: number;
	counts: { results: number; answers: number; entries: number };
	head: string;
};

export async function closingOf(db: Query, administrationId: string): Promise<Closing | null> {
	const row: (Omit<Closing, 'counts'> & { counts: string }) | undefined = await db('closing')
		.leftJoin('staff as first', 'first.id', 'closing.by')
		.leftJoin('staff as other', 'other.id', 'closing.second')
		.where({ administration_id: administrationId })
		.first('at', 'first.name as by', 'other.name as second', 'archive', 'sha256', 'bytes', 'counts', 'head');
	return row ? { ...row, counts: JSON.parse(row.counts) } : null;
}
