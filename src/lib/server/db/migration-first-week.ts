import type { Knex } from 'knex';
import { freezeLaterTables } from './closed-rows';
import type { Migration } from './migrations';

/** Papers ended by hand, what coming back needs, people elsewhere, steps in order, contacts, what technical staff have done. */
export const firstWeek: Migration = {
	name: '019-first-week',
	async up(db: Knex) {
		await db.schema.alterTable('session', (t) => t.bigInteger('time_called_at'));
		// Which opening of the page the paper was sent to: another has left it meanwhile. null: it may be sent to any.
		await db.schema.alterTable('sitting', (t) => t.string('paper_view'));
		await db.schema.alterTable('candidate', (t) => {
			t.string('user_name');
			t.string('grade');
			t.boolean('elsewhere').notNullable().defaultTo(false);
			t.boolean('trial').notNullable().defaultTo(false);
		});
		await db.schema.createTable('contact', (t) => {
			t.string('id').primary();
			t.string('administration_id').notNullable().references('administration.id').index();
			t.integer('place').notNullable();
			t.string('problem').notNullable();
			t.string('name').notNullable();
			t.string('telephone').notNullable();
			t.string('email').notNullable().defaultTo('');
			t.string('hours').notNullable().defaultTo('');
			t.boolean('for_candidates').notNullable().defaultTo(false);
		});
		// The parts of an administration in their order; one without a paper is off the screen and is only ticked done.
		await db.schema.createTable('step', (t) => {
			t.string('id').primary();
			t.string('administration_id').notNullable().references('administration.id').index();
			t.integer('place').notNullable();
			t.string('title').notNullable();
			t.string('paper_title');
			t.string('after_id');
			t.integer('least_percent');
		});
		await db.schema.createTable('step_done', (t) => {
			t.string('step_id').notNullable().references('step.id');
			t.string('candidate_id').notNullable().references('candidate.id').index();
			t.bigInteger('at').notNullable();
			t.string('by').notNullable();
			// Opened by a person, though what it asks for is not there.
			t.string('waived_why');
			t.primary(['step_id', 'candidate_id']);
		});
		await db.schema.createTable('technical_done', (t) => {
			t.string('site_id').notNullable().references('site.id');
			t.string('session_id').notNullable().references('session.id');
			t.string('task').notNullable();
			t.bigInteger('at').notNullable();
			t.string('by').notNullable();
			t.string('note').notNullable().defaultTo('');
			t.primary(['session_id', 'task']);
		});
		await freezeLaterTables(db, ['contact', 'step', 'step_done']);
	}
};
