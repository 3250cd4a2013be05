import type { Query } from './open';

/** How SQLite would run a query, step by step (`EXPLAIN QUERY PLAN`): for tests of what uses an index. */
export async function planOf(db: Query, sql: string, bindings: unknown[] = []): Promise<string[]> {
	const plan: { detail: string }[] = await db.raw(`EXPLAIN QUERY PLAN ${sql}`, bindings as string[]);
	return plan.map(({ detail }) => detail);
}
