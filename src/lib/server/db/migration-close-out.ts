import type { Knex } from 'knex';
import { freezeWhenClosed } from './closed-rows';
import type { Migration } from './migrations';

/** Marking by people, corrections, decisions, signatures, closing and release. */
export const closeOut: Migration = {
	name: '018-close-out',
	async up(db: Knex) {
		await db.schema.createTable('hand_plan', (t) => {
			t.string('administration_id').notNullable().references('administration.id');
			t.string('paper_id').notNullable().references('paper.id');
			t.string('question_id').notNullable();
			t.text('body').notNullable();
			t.integer('revision').notNullable().defaultTo(1);
			t.bigInteger('changed_at').notNullable();
			t.string('changed_by').notNullable();
			t.primary(['administration_id', 'paper_id', 'question_id']);
		});
		// Taken back, never changed: each mark that was ever given stays.
		await db.schema.createTable('hand_mark', (t) => {
			t.string('id').primary();
			t.string('administration_id').notNullable().references('administration.id');
			t.string('sitting_id').notNullable().references('sitting.id').index();
			t.string('question_id').notNullable();
			t.string('marker').notNullable().index();
			t.float('points').notNullable();
			t.text('criteria').notNullable().defaultTo('{}');
			t.text('comment').notNullable().defaultTo('');
			t.integer('took_ms').notNullable().defaultTo(0);
			t.bigInteger('at').notNullable();
			t.bigInteger('taken_back_at');
			t.string('taken_back_by');
			t.string('taken_back_why');
		});
		await db.schema.createTable('correction', (t) => {
			t.string('id').primary();
			t.string('administration_id').notNullable().references('administration.id').index();
			t.string('paper_id').notNullable().references('paper.id');
			t.string('question_id').notNullable();
			t.text('body').notNullable();
			t.string('reason').notNullable();
			t.string('proposed_by').notNullable();
			t.bigInteger('proposed_at').notNullable();
			// In the order in which they came into force; null: nobody has confirmed it.
			t.integer('place');
			t.string('confirmed_by');
			t.bigInteger('confirmed_at');
			t.string('declined_by');
			t.bigInteger('declined_at');
			t.unique(['administration_id', 'place']);
		});
		await db.schema.createTable('marking_run', (t) => {
			t.string('id').primary();
			t.string('administration_id').notNullable().references('administration.id').index();
			t.string('paper_id').notNullable().references('paper.id');
			t.bigInteger('at').notNullable();
			t.string('by').notNullable();
			// What it was made for: the marking before any correction, after one, or as it became final.
			t.string('why').notNullable();
			t.string('correction_id').references('correction.id');
		});
		await db.schema.createTable('run_score', (t) => {
			t.string('run_id').notNullable().references('marking_run.id');
			t.string('sitting_id').notNullable().references('sitting.id');
			t.float('points').notNullable();
			t.float('out_of').notNullable();
			t.text('marks').notNullable();
			t.primary(['run_id', 'sitting_id']);
		});
		await db.schema.createTable('incident_decision', (t) => {
			t.string('id').primary();
			t.string('incident_id').notNullable().references('incident.id').index();
			// null: of an incident that names nobody.
			t.string('sitting_id').references('sitting.id').index();
			t.string('decision').notNullable();
			t.string('note').notNullable();
			t.string('by').notNullable();
			t.bigInteger('at').notNullable();
			t.bigInteger('withdrawn_at');
		});
		await db.schema.createTable('validity', (t) => {
			t.string('id').primary();
			t.string('sitting_id').notNullable().references('sitting.id').index();
			t.string('verdict').notNullable();
			// What was proposed then, and why.
			t.text('proposed').notNullable();
			t.string('note').notNullable();
			t.string('by').notNullable();
			t.bigInteger('at').notNullable();
			t.bigInteger('withdrawn_at');
		});
		await db.schema.createTable('alike_decision', (t) => {
			t.string('id').primary();
			t.string('session_id').notNullable().references('session.id').index();
			t.text('pairs').notNullable();
			t.string('note').notNullable();
			t.string('by').notNullable();
			t.bigInteger('at').notNullable();
		});
		await db.schema.createTable('sign_off', (t) => {
			t.string('id').primary();
			t.string('administration_id').notNullable().references('administration.id').index();
			t.string('site_id').notNullable().references('site.id');
			t.text('statement').notNullable();
			t.text('beneath').notNullable();
			t.string('by').notNullable();
			t.bigInteger('at').notNullable();
			t.bigInteger('withdrawn_at');
		});
		// The first of two, where nobody is there who supervised none of it.
		await db.schema.createTable('closing_wish', (t) => {
			t.string('administration_id').primary().references('administration.id');
			t.string('by').notNullable();
			t.bigInteger('at').notNullable();
		});
		await db.schema.createTable('closing', (t) => {
			t.string('administration_id').primary().references('administration.id');
			t.bigInteger('at').notNullable();
			t.string('by').notNullable();
			t.string('second');
			t.string('archive').notNullable();
			t.string('sha256').notNullable();
			t.integer('bytes').notNullable();
			t.text('counts').notNullable();
			t.string('head').notNullable();
		});
		await db.schema.createTable('addendum', (t) => {
			t.string('id').primary();
			t.string('administration_id').notNullable().references('administration.id').index();
			t.string('sitting_id').references('sitting.id');
			t.text('body').notNullable();
			t.string('proposed_by').notNullable();
			t.bigInteger('proposed_at').notNullable();
			t.string('confirmed_by');
			t.bigInteger('confirmed_at');
			t.string('declined_by');
			t.bigInteger('declined_at');
			t.string('file');
			t.string('sha256');
		});
		await db.schema.createTable('release', (t) => {
			t.string('id').primary();
			t.string('administration_id').notNullable().references('administration.id').index();
			t.string('paper_id').notNullable().references('paper.id');
			t.text('body').notNullable();
			t.bigInteger('from_at').notNullable();
			t.string('by').notNullable();
			t.bigInteger('at').notNullable();
			t.bigInteger('called_back_at');
			t.string('called_back_by');
			t.bigInteger('mailed_at');
		});
		await db.schema.createTable('release_read', (t) => {
			t.string('release_id').notNullable().references('release.id');
			t.string('sitting_id').notNullable().references('sitting.id');
			t.bigInteger('at').notNullable();
			t.primary(['release_id', 'sitting_id']);
		});
		await db.schema.createTable('question_figure', (t) => {
			t.string('question_id').notNullable().index();
			t.string('paper_id').notNullable().references('paper.id');
			t.string('administration_id').notNullable().references('administration.id');
			t.integer('seen').notNullable();
			t.float('facility');
			t.float('discrimination');
			t.integer('median_ms');
			t.bigInteger('at').notNullable();
			t.primary(['question_id', 'paper_id', 'administration_id']);
		});
		await freezeWhenClosed(db);
	}
};
