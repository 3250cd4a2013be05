import type { Db, Query } from '../db';

/** In `meta`: since when this house adds points up exactly, epoch ms. */
const SINCE = 'points_exact_since';

/** Written down at each start, and so once: by the first version that does. */
export async function noteExactSince(db: Db, now: number): Promise<void> {
	await db('meta')
		.insert({ key: SINCE, value: String(now) })
		.onConflict('key')
		.ignore();
}

/**
 * Whether an administration was closed before points were exact. Its results were told and archived as they were added up
 * then, and stay so.
 */
export async function wasClosedBefore(db: Query, administrationId: string): Promise<boolean> {
	const closing: { at: number } | undefined = await db('closing')
		.where({ administration_id: administrationId })
		.first('at');
	if (!closing) return false;
	const row: { value: string } | undefined = await db('meta').where({ key: SINCE }).first('value');
	return row !== undefined && closing.at < Number(row.value);
}
