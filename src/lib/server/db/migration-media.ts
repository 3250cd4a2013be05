import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** Files that questions show or play, how often each was played in a sitting, and what candidates hand over as files. */
export const media: Migration = {
	name: '015-media',
	async up(db: Knex) {
		await db.schema.createTable('media_file', (t) => {
			t.string('sha256').primary();
			t.string('type').notNullable();
			t.integer('bytes').notNullable();
			// Of a picture, in pixels.
			t.integer('width');
			t.integer('height');
			t.bigInteger('added_at').notNullable();
			t.string('added_by');
		});
		await db.schema.createTable('sitting_play', (t) => {
			t.string('sitting_id').notNullable().references('sitting.id');
			// What is played: its question or shared text as the paper names it, and its place there.
			t.string('of').notNullable();
			t.integer('place').notNullable();
			t.integer('times').notNullable();
			t.primary(['sitting_id', 'of', 'place']);
		});
		await db.schema.createTable('sitting_file', (t) => {
			t.string('id').primary();
			t.string('sitting_id').notNullable().references('sitting.id').index();
			t.string('question_id').notNullable();
			t.string('name').notNullable();
			t.string('type').notNullable();
			t.integer('bytes').notNullable();
			t.string('sha256').notNullable();
			t.bigInteger('at').notNullable();
			// Handed over from another device, by its code.
			t.boolean('by_code').notNullable().defaultTo(false);
		});
	}
};
