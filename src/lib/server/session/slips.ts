import { randomBytes } from 'node:crypto';
import { slipCodeFrom } from '$core/access';
import { insertMany, markOf, openSecret, sealSecret, type Query } from '../db';

/** Every sitting's slip: made when it is first asked for, and the same from then on. By sitting. */
export async function slipsFor(db: Query, sittingIds: string[]): Promise<Map<string, string>> {
	const read = async () => {
		const rows: { sitting_id: string; code: string }[] = await db('slip').whereIn('sitting_id', sittingIds);
		return new Map(rows.map((row) => [row.sitting_id, openSecret(db, row.code)!]));
	};
	const known = await read();
	const fresh = sittingIds
		.filter((id) => !known.has(id))
		.map((id) => {
			const code = slipCodeFrom(randomBytes(80));
			return { sitting_id: id, code: sealSecret(db, code), code_mark: markOf(db, code) };
		});
	if (fresh.length === 0) return known;
	// Two who ask at once get the same: the first to write decides.
	await insertMany(db, 'slip', fresh, (insert) => insert.onConflict('sitting_id').ignore());
	return read();
}
