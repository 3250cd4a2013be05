import type { Query } from '../db';

/** The sittings that a session expects or expected, also those that continued elsewhere since. */
export function rosterOf(db: Query, sessionId: string): Promise<string[]> {
	return db('roster').where({ session_id: sessionId }).pluck('sitting_id');
}
