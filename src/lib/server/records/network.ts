import type { Query } from '../db';

/** The names of networks, as far as they still exist; in the order of their names. */
export async function networkNames(db: Query, ids: string[]): Promise<string[]> {
	return ids.length === 0 ? [] : db('network').whereIn('id', ids).orderBy('name').pluck('name');
}
