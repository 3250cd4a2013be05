import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** The test day itself: what happens beside the answers. */
export const testDay: Migration = {
	name: '003-test-day',
	async up(db: Knex) {
		await db.schema.alterTable('sitting', (t) => {
			// Questions on a page where nobody may go back, so that saving an answer reads no rules; null: they may.
			t.integer('forward_by');
		});
		// How fast the answers come, worked out beside the saving.
		await db.schema.alterTable('progress', (t) => {
			t.string('pace').notNullable().defaultTo('calm');
			t.integer('rapid').notNullable().defaultTo(0);
		});
		// What a watched device did: left the screen, or tried what is prevented. The device draws the id.
		await db.schema.createTable('lapse', (t) => {
			t.string('id').primary();
			t.string('sitting_id').notNullable().references('sitting.id').index();
			t.string('kind').notNullable();
			t.bigInteger('from_at').notNullable();
			// null: still away.
			t.bigInteger('to_at');
		});
		// One row for each whom it concerns, so that each is seen or not. A raised hand is a message from a candidate.
		await db.schema.createTable('message', (t) => {
			t.string('id').primary();
			t.string('session_id').notNullable().references('session.id');
			t.string('sitting_id').notNullable().references('sitting.id');
			t.boolean('from_candidate').notNullable();
			t.string('by').notNullable();
			t.text('text').notNullable();
			t.bigInteger('at').notNullable();
			// When the other side saw it; a hand: when somebody came.
			t.bigInteger('seen_at');
			t.index(['sitting_id', 'at']);
		});
		await db.schema.createTable('incident', (t) => {
			t.string('id').primary();
			t.string('session_id').notNullable().references('session.id').index();
			t.string('kind').notNullable();
			t.bigInteger('happened_at').notNullable();
			t.text('note').notNullable();
			t.text('done').notNullable().defaultTo('');
			t.integer('minutes').notNullable().defaultTo(0);
			// The grants that gave the minutes back, so that they can be told and withdrawn.
			t.text('grant_ids').notNullable().defaultTo('[]');
			t.string('attachment_name');
			t.string('attachment_type');
			t.string('told_by').notNullable();
			t.bigInteger('told_at').notNullable();
			t.bigInteger('withdrawn_at');
		});
		await db.schema.createTable('incident_person', (t) => {
			t.string('incident_id').notNullable().references('incident.id');
			t.string('sitting_id').notNullable().references('sitting.id').index();
			t.primary(['incident_id', 'sitting_id']);
		});
		// Somebody was refused at this session's door and stands before it; a line under "Needs you" until it is settled.
		await db.schema.createTable('door_refusal', (t) => {
			t.string('id').primary();
			t.string('session_id').notNullable().references('session.id').index();
			t.string('candidate_id').references('candidate.id');
			t.string('sitting_id').references('sitting.id');
			t.string('code').notNullable();
			t.string('device_name').notNullable();
			t.integer('tries').notNullable().defaultTo(1);
			t.bigInteger('at').notNullable();
			t.bigInteger('settled_at');
		});
		await db.schema.alterTable('candidate', (t) => {
			// The photo lies in a file; here stands since when there is one.
			t.bigInteger('photo_at');
		});
		// Pictures from the camera lie in files; here stands which there are.
		await db.schema.createTable('snapshot', (t) => {
			t.string('id').primary();
			t.string('sitting_id').notNullable().references('sitting.id');
			t.bigInteger('at').notNullable();
			t.integer('bytes').notNullable();
			t.bigInteger('keep_until').notNullable().index();
			t.bigInteger('deleted_at');
			t.index(['sitting_id', 'at']);
		});
	}
};
