import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** A rule sheet belongs to the site that made it; those of before, and what all sites share, to none. */
export const sheetSite: Migration = {
	name: '012-sheet-site',
	async up(db: Knex) {
		await db.schema.alterTable('rule_sheet', (t) => {
			t.string('site_id');
		});
	}
};
