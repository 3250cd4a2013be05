import { planOf, type Db } from '../db';

type Asked = { sql: string; bindings: unknown[] };

/** What the database is asked while something is done, in order. */
export async function askedDuring(db: Db, work: () => Promise<unknown>): Promise<Asked[]> {
	const asked: Asked[] = [];
	const note = (query: Asked) => asked.push(query);
	db.on('query', note);
	await work().finally(() => db.removeListener('query', note));
	return asked;
}

/** Steps in which SQLite would read whole tables of these names for what is asked while something is done. */
export async function scansDuring(db: Db, tables: string[], work: () => Promise<unknown>): Promise<string[]> {
	const asked = await askedDuring(db, work);
	const scans: string[] = [];
	for (const { sql, bindings } of asked.filter((one) => /^(select|update|delete|with)\b/i.test(one.sql))) {
		const whole = (await planOf(db, sql, bindings)).filter((step) =>
			tables.some((table) => step === `SCAN ${table}` || step.startsWith(`SCAN ${table} USING`))
		);
		scans.push(...whole.map((step) => `${step} for ${sql}`));
	}
	if (asked.length === 0) throw new Error('Nothing was asked.');
	return scans;
}
