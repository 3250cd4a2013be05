import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** Grants with place, time, origin and evidence; who is owed a sitting no longer; what is asked for. */
export const grants: Migration = {
	name: '017-grants',
	async up(db: Knex) {
		await db.schema.alterTable('grant_given', (t) => {
			// Where an own window is sat and who is with them: also in the body, and here to be looked for.
			t.string('room_id').index();
			t.string('proctor_id').index();
			t.bigInteger('opens');
			t.bigInteger('closes');
			// It holds for sessions that open from then on, and until before then; null: always.
			t.bigInteger('from_at');
			t.bigInteger('until_at');
			t.string('asked_by');
			// `hand` or `profile`.
			t.string('source').notNullable().defaultTo('hand');
			// What was given together can be taken back together.
			t.string('batch').index();
			t.string('evidence_id');
			t.string('withdrawn_by');
		});
		await db.schema.createTable('evidence', (t) => {
			t.string('id').primary();
			t.string('name').notNullable();
			t.string('type').notNullable();
			t.bigInteger('at').notNullable();
			// Its file is sealed, and deleted then.
			t.bigInteger('keep_until').notNullable().index();
			t.bigInteger('deleted_at');
		});
		// Somebody is not owed a sitting any more, although they did not sit.
		await db.schema.createTable('waiver', (t) => {
			t.string('id').primary();
			t.string('sitting_id').notNullable().references('sitting.id').index();
			t.string('reason').notNullable();
			t.string('by').notNullable();
			t.bigInteger('at').notNullable();
			t.bigInteger('withdrawn_at');
		});
		await db.schema.createTable('grant_request', (t) => {
			t.string('id').primary();
			t.string('site_id').notNullable().references('site.id');
			t.string('candidate_id').notNullable().references('candidate.id').index();
			t.string('session_id').references('session.id');
			t.string('what').notNullable();
			t.text('why').notNullable();
			// proctor, teacher or candidate; with their name and address, so that they can be told.
			t.string('asked_as').notNullable();
			t.string('asked_by').notNullable();
			t.string('asked_email');
			t.bigInteger('asked_at').notNullable();
			// To be decided before then.
			t.bigInteger('needed_by');
			t.string('evidence_id');
			// open, given, declined or taken_back.
			t.string('state').notNullable().defaultTo('open').index();
			t.string('decided_by');
			t.bigInteger('decided_at');
			t.text('note');
		});
		// Until now nothing else told by whom a grant came.
		await db('grant_given').where({ reason: 'Imported with the candidate' }).update({ source: 'profile' });
		const windows: { id: string; body: string }[] = await db('grant_given')
			.where({ kind: 'own_window' })
			.select('id', 'body');
		for (const { id, body } of windows) {
			const { opens, closes } = JSON.parse(body);
			await db('grant_given').where({ id }).update({ opens, closes });
		}
	}
};
