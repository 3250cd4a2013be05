import type { Knex } from 'knex';

/** Only sittings on which work has begun; whether they go on is another matter. */
export function whereBegun(sittings: Knex.QueryBuilder): void {
	void sittings.whereRaw("json_extract(sitting.fold, '$.beganAt') IS NOT NULL");
}
