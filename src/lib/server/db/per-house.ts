import type { Query } from './open';

/**
 * Something remembered for each house and forgotten with it: two houses in one process share nothing. A transaction has
 * the same configuration object as the database that it is in.
 */
export function perHouse<T extends object>(make: () => T): (db: Query) => T {
	const houses = new WeakMap<object, T>();
	return (db) => {
		const house = db.client.config as object;
		const known = houses.get(house);
		if (known) return known;
		const fresh = make();
		houses.set(house, fresh);
		return fresh;
	};
}
