import type { Query } from './open';

/** The ids of a table in the order in which they were made: what comes later leaves those before it where they are. */
export function idsAsMade(db: Query, table: string): Promise<string[]> {
	return db(table).orderBy('rowid').pluck('id');
}
