import type { Knex } from 'knex';
import type { Query } from './open';

/**
 * Who supervises somebody in a window of their own acts in their session like its other proctors: their ids as JSON, as
 * `beside`, for a query of sessions. Asked for each session by index: a join would read all grants for every one.
 */
export function proctorsBeside(db: Query): Knex.Raw {
	return db.raw(
		`(SELECT json_group_array(DISTINCT proctor_id) FROM grant_given
			WHERE scope_id = session.id AND scope_kind = 'session' AND proctor_id IS NOT NULL AND withdrawn_at IS NULL) AS beside`
	);
}
