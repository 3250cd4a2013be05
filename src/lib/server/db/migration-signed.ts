import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** A device signs what it sends; those that were signed in before go on as they came. */
export const signed: Migration = {
	name: '007-signed',
	async up(db: Knex) {
		await db.schema.alterTable('device', (t) => {
			// SPKI in base64url. null: its browser can't sign.
			t.text('public_key');
		});
		await db.raw("UPDATE sitting SET fold = json_set(fold, '$.noted', json('[]'))");
	}
};
