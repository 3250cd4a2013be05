import type { Knex } from 'knex';
import { leaveToTheirTime } from './closed-rows';
import { allowEmptying } from './append-only';
import type { Migration } from './migrations';

/**
 * What is about persons in a closed administration has an end: its answers and what the log says of it. The rows of the log
 * and of the groups of answers stay with their hashes, so that the chain is whole without what was in it.
 */
export const emptied: Migration = {
	name: '021-emptied',
	async up(db: Knex) {
		await db.schema.createTable('emptied', (t) => {
			t.string('administration_id').notNullable().references('administration.id');
			// answers or log
			t.string('what').notNullable();
			t.bigInteger('at').notNullable();
			// null: it is being done.
			t.bigInteger('done_at');
			t.primary(['administration_id', 'what']);
		});
		// With the house's key, by whom it was emptied: what is empty without it has been tampered with.
		for (const table of ['logbook', 'answer_group']) await db.schema.alterTable(table, (t) => void t.text('emptied'));
		await db.raw(
			'CREATE INDEX logbook_of_none ON logbook (at) WHERE emptied IS NULL AND session_id IS NULL AND sitting_id IS NULL'
		);
		await allowEmptying(db);
		await leaveToTheirTime(db);
	}
};
