import type { Query } from './open';

/** What the house keeps under a name, as JSON; null: nothing yet. */
export async function houseSetting<T>(db: Query, key: string): Promise<T | null> {
	const row = await db('meta').where({ key }).first('value');
	return row ? (JSON.parse(row.value) as T) : null;
}

export async function keepHouseSetting(db: Query, key: string, value: unknown): Promise<void> {
	await db('meta')
		.insert({ key, value: JSON.stringify(value) })
		.onConflict('key')
		.merge();
}
