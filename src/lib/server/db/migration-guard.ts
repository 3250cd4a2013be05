import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** Answers of which nothing shows whose they are wait for a person; which browsers an account was signed in from. */
export const guard: Migration = {
	name: '023-guard',
	async up(db: Knex) {
		await db.raw('DROP INDEX answer_held_back');
		await db.raw(
			"CREATE INDEX answer_held_back ON answer (sitting_id) WHERE kept_because IN ('after_end', 'freed_device', 'unproven', 'on_hold', 'question_over')"
		);
		await db.schema.createTable('staff_browser', (t) => {
			t.string('staff_id').notNullable().references('staff.id').onDelete('CASCADE');
			t.string('browser').notNullable().index();
			t.bigInteger('at').notNullable();
			t.primary(['staff_id', 'browser']);
		});
	}
};
