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

/**
 * From then on what an entry of the log says may go, and a group of answers may be marked as emptied, once each; everything
 * that their hashes need stays as it is. Answers may go where their administration is being emptied.
 */
export async function allowEmptying(db: Knex): Promise<void> {
	const staysAs = (columns: string[]) => columns.map((column) => `new.${column} IS old.${column}`).join(' AND ');
	const once = 'old.emptied IS NULL AND new.emptied IS NOT NULL';
	const log = ['seq', 'at', 'actor_role', 'actor_id', 'kind', 'session_id', 'sitting_id', 'before', 'hash'];
	const group = ['seq', 'at', 'answers', 'digest', 'before', 'hash'];
	for (const [table, allowed] of [
		['logbook', `${once} AND new.body = '{}' AND ${staysAs(log)}`],
		['answer_group', `${once} AND ${staysAs(group)}`]
	]) {
		await db.raw(`DROP TRIGGER ${table}_no_update`);
		await db.raw(
			`CREATE TRIGGER ${table}_no_update BEFORE UPDATE ON ${table} WHEN NOT (${allowed})
			 BEGIN SELECT RAISE(ABORT, '${table} is append-only'); END`
		);
	}
	await db.raw('DROP TRIGGER answer_no_delete');
	await db.raw(
		`CREATE TRIGGER answer_no_delete BEFORE DELETE ON answer
		 WHEN NOT EXISTS (SELECT 1 FROM emptied WHERE what = 'answers'
		   AND administration_id = (SELECT administration_id FROM sitting WHERE id = old.sitting_id))
		 BEGIN SELECT RAISE(ABORT, 'answer is append-only'); END`
	);
}
