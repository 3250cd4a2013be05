import type { Knex } from 'knex';

/** Refuses every change and removal of what a table holds: rows come, and stay. */
export async function makeAppendOnly(db: Knex, table: string): Promise<void> {
	for (const act of ['UPDATE', 'DELETE']) {
		await db.raw(
			`CREATE TRIGGER ${table}_no_${act.toLowerCase()} BEFORE ${act} ON ${table}
			 BEGIN SELECT RAISE(ABORT, '${table} is append-only'); END`
		);
	}
}
