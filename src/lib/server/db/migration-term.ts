import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** A whole term in one house: what came with the first days that were run for real. */
export const term: Migration = {
	name: '004-term',
	async up(db: Knex) {
		await db.schema.alterTable('door_refusal', (t) => {
			// After wrong tries the door makes a device wait: until when, and which rows of misses a proctor may forgive.
			t.bigInteger('waits_until');
			t.text('limited').notNullable().defaultTo('[]');
		});
		await db.schema.alterTable('sitting', (t) => {
			// The attempt that took this one's place on the roster; null: this is the latest.
			t.string('next_attempt_id').references('sitting.id');
		});
	}
};
