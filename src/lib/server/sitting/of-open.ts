import type { Query } from '../db';

/**
 * Narrows sittings to those of administrations that are open: of a closed one nothing changes, and what would change it
 * fails whole. For `query.modify`.
 */
export const ofOpenAdministrations = (db: Query) => (query: ReturnType<Query['queryBuilder']>) =>
	void query.whereNotIn('sitting.administration_id', db('closing').select('administration_id'));
