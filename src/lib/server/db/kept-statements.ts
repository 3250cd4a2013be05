import type Database from 'better-sqlite3';
import { LRUCache } from 'lru-cache';

/** Enough for every query of a test day; lists of many lengths come and go. */
const MOST = 400;
const CHANGES_SCHEMA = /^\s*(create|alter|drop|pragma|vacuum|attach|detach)\b/i;

/**
 * Keeps what this connection has compiled: Knex asks for every query to be compiled anew, which was a tenth of the work
 * of a busy server. A change of the schema forgets them all, because a statement knows its columns from when it was made.
 */
export function keepStatements(connection: Database.Database): void {
	const kept = new LRUCache<string, Database.Statement>({ max: MOST });
	const prepare = connection.prepare.bind(connection);
	connection.prepare = ((sql: string) => {
		if (CHANGES_SCHEMA.test(sql)) {
			kept.clear();
			return prepare(sql);
		}
		const known = kept.get(sql);
		// One that is being read row by row can't be read a second time beside that.
		if (known && !known.busy) return known;
		const made = prepare(sql);
		kept.set(sql, made);
		return made;
	}) as typeof connection.prepare;
}
