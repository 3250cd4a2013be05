import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { transact } from '../db';
import { buildHouse, COORDINATOR, NINE, type House } from '../testing/house';
import { turnsDuring } from '../testing/turns';
import { appendToLogbook, logbookPage, searchLogbook } from '.';

const MANY = 9_000;
let house: House;
/** The first entry says something that none of the thousands after it says; the last but ten says something else. */
beforeAll(async () => {
	house = await buildHouse();
	await transact(house.otium.db, async (trx) => {
		const entry = (i: number) => ({
			at: NINE + i,
			by: COORDINATOR,
			kind: 'mail_template_changed',
			body: { place: i === 0 ? 'lighthouse' : i === MANY - 10 ? 'breakwater' : 'quay' }
		});
		await appendToLogbook(
			trx,
			Array.from({ length: MANY }, (_, i) => entry(i))
		);
	});
}, 60_000);
afterAll(() => house.close());

describe('a long record', () => {
	it('is looked through to its beginning, while everything else has its turns', async () => {
		const { db } = house.otium;
		let found: unknown[] = [];
		const turns = await turnsDuring(async () => (found = await searchLogbook(db, { text: 'lighthouse' })));
		expect(found).toMatchObject([{ at: NINE }]);
		expect(turns).toBeGreaterThan(MANY / 2_000 - 1);
		expect(await searchLogbook(db, { text: 'nowhere' })).toEqual([]);
	});

	it('comes page by page, without a gap or an entry twice', async () => {
		const { db } = house.otium;
		const seqs: number[] = [];
		for (let before: number | null | undefined; before !== null;) {
			const page = await logbookPage(db, { before, limit: 700 });
			seqs.push(...page.lines.map(({ seq }) => seq));
			expect(page.since).toBeNull();
			({ before } = page);
		}
		const all: number[] = await db('logbook').whereNot({ kind: 'rows' }).orderBy('seq', 'desc').pluck('seq');
		expect(seqs).toEqual(all);
		expect(all.length).toBeGreaterThan(MANY - 1);
	});

	it('a page that finds little ends before it is full, says since when it looked, and goes on from there', async () => {
		const { db } = house.otium;
		const first = await logbookPage(db, { text: 'breakwater', limit: 5 }, 4_000);
		expect(first.lines).toHaveLength(1);
		expect(first.since).toBe((await db('logbook').where({ seq: first.before! }).first('at')).at);
		const rest = await logbookPage(db, { text: 'lighthouse', limit: 5, before: first.before! });
		expect(rest).toMatchObject({ lines: [{ at: NINE }], before: null, since: null });
	});

	it('an entry of no number that there is asks for the newest, and one before all for nothing', async () => {
		const { db } = house.otium;
		expect((await logbookPage(db, { before: 1e12, limit: 1 })).lines).toMatchObject([{ at: NINE + MANY - 1 }]);
		expect(await logbookPage(db, { before: 1, limit: 5 })).toEqual({ lines: [], before: null, since: null });
		expect(await logbookPage(db, { before: -7, limit: 5 })).toEqual({ lines: [], before: null, since: null });
	});
});
