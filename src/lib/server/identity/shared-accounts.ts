import type { Query } from '../db';

/** What two accounts have in common that two people seldom have. */
export type Shared = 'email' | 'browser';

/**
 * Whether two accounts may be one person's: the same address, or signed in to from one browser. It forbids nothing, as
 * colleagues share a computer; who reads the record of an act that takes two is told.
 */
export async function sharedBy(db: Query, one: string, other: string): Promise<Shared[]> {
	if (one === other) return [];
	const rows: { email: string | null }[] = await db('staff').whereIn('id', [one, other]).select('email');
	const [a, b] = rows.map(({ email }) => email?.trim().toLowerCase() ?? null);
	const shared: Shared[] = a !== null && a !== undefined && a === b ? ['email'] : [];
	const both = await db('staff_browser as mine')
		.join('staff_browser as theirs', 'theirs.browser', 'mine.browser')
		.where({ 'mine.staff_id': one, 'theirs.staff_id': other })
		.first('mine.browser');
	return both ? [...shared, 'browser'] : shared;
}

/** By account, the names of those that share an address or a browser with it; accounts that share none are left out. */
export async function sharedAccounts(db: Query): Promise<Map<string, string[]>> {
	const staff: { id: string; name: string; email: string | null }[] = await db('staff').select('id', 'name', 'email');
	const nameOf = new Map(staff.map(({ id, name }) => [id, name]));
	const pairs: { one: string; other: string }[] = await db('staff_browser as mine')
		.join('staff_browser as theirs', 'theirs.browser', 'mine.browser')
		.whereNot('mine.staff_id', db.ref('theirs.staff_id'))
		.distinct('mine.staff_id as one', 'theirs.staff_id as other');
	for (const a of staff)
		for (const b of staff)
			if (a.id !== b.id && a.email && a.email.toLowerCase() === b.email?.toLowerCase())
				pairs.push({ one: a.id, other: b.id });
	const shared = new Map<string, string[]>();
	for (const { one, other } of pairs)
		shared.set(one, [...new Set([...(shared.get(one) ?? []), nameOf.get(other) ?? other])].sort());
	return shared;
}

/** Notes that somebody has signed in from a browser. @param browser by which the record knows it; null: it is not known */
export async function noteBrowser(trx: Query, staffId: string, browser: string | null, at: number): Promise<void> {
	if (browser === null) return;
	await trx('staff_browser').insert({ staff_id: staffId, browser, at }).onConflict(['staff_id', 'browser']).merge();
}
