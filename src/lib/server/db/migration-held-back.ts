import type { Knex } from 'knex';
import type { Migration } from './migrations';

/** Few answers are held back, and every picture of a room asks for them. */
export const heldBack: Migration = {
	name: '005-held-back',
	async up(db: Knex) {
		await db.raw(
			"CREATE INDEX answer_held_back ON answer (sitting_id) WHERE kept_because IN ('after_end', 'freed_device')"
		);
	}
};
