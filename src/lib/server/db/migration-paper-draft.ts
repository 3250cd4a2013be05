import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** Papers that are being written, and for each version what it was written from, when it was frozen, and its digest. */
export const paperDraft: Migration = {
	name: '013-paper-draft',
	async up(db: Knex) {
		await db.schema.createTable('paper_draft', (t) => {
			t.string('id').primary();
			// Whose it is; null: of all sites.
			t.string('site_id').references('site.id').index();
			t.string('title').notNullable();
			t.text('content').notNullable();
			// Raised by every change: two who write at once are told, not overwritten.
			t.integer('revision').notNullable().defaultTo(1);
			// The version that it goes on from.
			t.string('based_on').references('paper.id');
			t.bigInteger('changed_at').notNullable();
			t.string('changed_by').notNullable();
		});
		await db.schema.alterTable('paper', (t) => {
			t.string('draft_id');
			t.bigInteger('frozen_at');
			t.string('frozen_by');
			t.string('sha256');
		});
	}
};
