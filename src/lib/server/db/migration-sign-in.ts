import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** Staff have a second step, choose their own password, and see where they are signed in. */
export const signIn: Migration = {
	name: '009-sign-in',
	async up(db: Knex) {
		await db.schema.alterTable('staff', (t) => {
			// The password was given by somebody else, and is changed at the next sign-in.
			t.boolean('must_change').notNullable().defaultTo(false);
			// Sealed. null: no authenticator app.
			t.text('totp_secret');
			// Sealed, until the first code from the app has been right.
			t.text('totp_pending');
			// The last period whose code was used: each holds once.
			t.integer('totp_used');
			// By whom the house's own sign-in service knows them.
			t.string('oidc_subject').unique();
		});
		// Open sign-ins are of the earlier kind and end: staff sign in anew.
		await db('staff_session').delete();
		await db.schema.alterTable('staff_session', (t) => {
			t.string('id').notNullable().defaultTo('');
			t.bigInteger('made_at').notNullable().defaultTo(0);
			t.bigInteger('seen_at').notNullable().defaultTo(0);
			// When it was last proved who is there.
			t.bigInteger('confirmed_at').notNullable().defaultTo(0);
			t.string('address').notNullable().defaultTo('');
			t.string('browser').notNullable().defaultTo('');
			// What is still to be done before it holds: second, password, enrol. null: nothing.
			t.string('awaits');
		});
		await db.schema.createTable('passkey', (t) => {
			t.string('id').primary();
			t.string('staff_id').notNullable().references('staff.id').index();
			t.string('name').notNullable();
			t.text('public_key').notNullable();
			t.bigInteger('counter').notNullable();
			t.text('transports').notNullable();
			t.bigInteger('made_at').notNullable();
			t.bigInteger('used_at');
		});
		await db.schema.createTable('recovery_code', (t) => {
			t.string('staff_id').notNullable().references('staff.id');
			t.string('code_mark').notNullable();
			t.bigInteger('used_at');
			t.primary(['staff_id', 'code_mark']);
		});
		await db.schema.createTable('password_link', (t) => {
			t.string('token_hash').primary();
			t.string('staff_id').notNullable().references('staff.id').index();
			t.bigInteger('expires_at').notNullable();
			t.bigInteger('used_at');
		});
	}
};
