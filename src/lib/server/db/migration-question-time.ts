import type { Knex } from 'knex';
import { freezeLaterTables } from './closed-rows';
import type { Migration } from './migrations';

/** A time for each question: when each was shown, and until when the present one is answered. Results for the staff. */
export const questionTime: Migration = {
	name: '020-question-time',
	async up(db: Knex) {
		await db.schema.createTable('question_shown', (t) => {
			t.string('sitting_id').notNullable().references('sitting.id');
			// Its place on the form, from 0.
			t.integer('place').notNullable();
			t.bigInteger('at').notNullable();
			t.primary(['sitting_id', 'place']);
		});
		await db.schema.alterTable('sitting', (t) => {
			// Until when answers to the question that was shown last stand; null: it has no time of its own, or it does not run.
			t.bigInteger('question_until');
		});
		await db.raw('DROP INDEX answer_held_back');
		await db.raw(
			"CREATE INDEX answer_held_back ON answer (sitting_id) WHERE kept_because IN ('after_end', 'freed_device', 'on_hold', 'question_over')"
		);
		await freezeLaterTables(db, ['question_shown']);
		// Results are released to roles of the staff too; whoever has read them can't unread them.
		await db.schema.createTable('release_staff_read', (t) => {
			t.string('release_id').notNullable().references('release.id');
			t.string('staff_id').notNullable().references('staff.id');
			t.bigInteger('at').notNullable();
			t.primary(['release_id', 'staff_id']);
		});
	}
};
