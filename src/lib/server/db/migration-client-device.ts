import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** A sealed client has a key of its own device, which staff have let enrol; what a whole site shared holds no more. */
export const clientDevice: Migration = {
	name: '010-client-device',
	async up(db: Knex) {
		await db.schema.createTable('client_device', (t) => {
			t.string('id').primary();
			t.string('site_id').notNullable().references('site.id').index();
			t.string('name').notNullable();
			t.text('public_key').notNullable();
			t.string('enrolled_by').notNullable();
			t.bigInteger('enrolled_at').notNullable();
			t.bigInteger('seen_at');
			t.string('version');
			t.bigInteger('withdrawn_at');
		});
		await db.schema.createTable('client_enrolment', (t) => {
			t.string('code_mark').primary();
			t.string('site_id').notNullable().references('site.id');
			t.string('made_by').notNullable();
			t.bigInteger('made_at').notNullable();
			t.bigInteger('expires_at').notNullable();
			t.integer('devices').notNullable().defaultTo(0);
		});
		await db.schema.alterTable('sitting', (t) => {
			// Whose sealed client its device must be, and of which version at least; null: none.
			t.string('client_site');
			t.string('client_least');
		});
		await db.raw(`UPDATE sitting SET
			client_least = (SELECT json_extract(rules, '$.lockdown.clientVersion') FROM session WHERE session.id = session_id),
			client_site = (SELECT room.site_id FROM session JOIN room ON room.id = session.room_id WHERE session.id = session_id)
			WHERE (SELECT json_extract(rules, '$.lockdown.level') FROM session WHERE session.id = session_id) = 'sealed'`);
		await db('site_key').whereNull('withdrawn_at').update({ withdrawn_at: 0 });
		await db('site_key').update({ secret: '' });
	}
};
