import type { Query } from '../db';

/** Since when the answers of an administration are being deleted, as their time had come; null: they are there. */
export async function answersGone(db: Query, administrationId: string): Promise<number | null> {
	const row = await db('emptied').where({ administration_id: administrationId, what: 'answers' }).first('at');
	return (row?.at as number | undefined) ?? null;
}
