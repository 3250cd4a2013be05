import type { Knex } from 'knex';
import type { Migration } from './migrations';

/**
 * What every page of a large house asks for, and each second asks for, is found by index: sittings of an administration or
 * a paper, who supervises own windows, sessions of an administration, and of all years those that are not over.
 */
export const lookedUp: Migration = {
	name: '022-looked-up',
	async up(db: Knex) {
		await db.schema.alterTable('sitting', (t) => {
			t.index(['administration_id', 'paper_id']);
			t.index('paper_id');
		});
		await db.schema.alterTable('session', (t) => {
			t.index('administration_id');
			t.index('closes');
		});
		await db.raw('CREATE INDEX session_open ON session (opens) WHERE ended_at IS NULL');
		await db.raw(
			'CREATE INDEX session_turning ON session (opens) WHERE turning_key IS NOT NULL AND door_code IS NOT NULL'
		);
		await db.raw(
			'CREATE INDEX grant_given_beside ON grant_given (scope_id, proctor_id) WHERE proctor_id IS NOT NULL AND withdrawn_at IS NULL'
		);
	}
};
