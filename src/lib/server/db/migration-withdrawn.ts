import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** Versions of papers that are not offered any more. */
export const withdrawn: Migration = {
	name: '016-withdrawn',
	async up(db: Knex) {
		await db.schema.alterTable('paper', (t) => {
			t.bigInteger('withdrawn_at');
			t.string('withdrawn_by');
			t.string('withdrawn_why');
		});
	}
};
