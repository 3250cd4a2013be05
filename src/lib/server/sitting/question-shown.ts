import type { Query } from '../db';

/** The question that somebody has come to: its place on the form, from 0, and when it was first sent to a device. */
export type Shown = { place: number; at: number };

/** By sitting, the question that was shown last. */
export async function lastShown(db: Query, sittingIds: string[]): Promise<Map<string, Shown>> {
	if (sittingIds.length === 0) return new Map();
	// The other column of a maximum is that of its row: https://www.sqlite.org/lang_select.html#bareagg
	const rows: (Shown & { sitting_id: string })[] = await db('question_shown')
		.whereIn('sitting_id', sittingIds)
		.groupBy('sitting_id')
		.select('sitting_id', 'at')
		.max('place as place');
	return new Map(rows.map(({ sitting_id, place, at }) => [sitting_id, { place, at }]));
}

/** Notes that a question leaves for a device. Sent again it was shown when it was first. */
export async function noteShown(trx: Query, sittingId: string, shown: Shown): Promise<void> {
	await trx('question_shown')
		.insert({ sitting_id: sittingId, ...shown })
		.onConflict(['sitting_id', 'place'])
		.ignore();
}
