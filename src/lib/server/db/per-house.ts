import type { Query } from './open';

/**
 * Something remembered for each house and forgotten with it: two houses in one process share nothing. A transaction has
 * the same settings of its connection as the database that it is in, and so has a migration.
 */
export function perHouse<T extends object>(make: () => T): (db: Query) => T {
	const houses = new WeakMap<object, T>();
	return (db) => {
		const house = (db.client.config as { connection: object }).connection;
		const known = houses.get(house);
		if (known) return known;
		const fresh = make();
		houses.set(house, fresh);
		return fresh;
	};
}
