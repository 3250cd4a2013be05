import type { Knex } from 'knex';
import type { Query } from './open';

/** SQLite takes 500 rows in a statement as Knex writes it, and 32,766 values; this is below both for every table here. */
const AT_ONCE = 400;

/**
 * Inserts any number of rows, none included, in as many statements as it takes. Call it in a transaction, so that it is
 * all or nothing.
 * @param onConflict what becomes of rows that are there already
 */
export async function insertMany(
	trx: Query,
	table: string,
	rows: object[],
	onConflict: (insert: Knex.QueryBuilder) => Knex.QueryBuilder = (insert) => insert
): Promise<void> {
	for (let i = 0; i < rows.length; i += AT_ONCE) await onConflict(trx(table).insert(rows.slice(i, i + AT_ONCE)));
}
