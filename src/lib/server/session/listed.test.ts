import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { insertMany } from '../db';
import { buildHouse, NINE, type House } from '../testing/house';
import { scansDuring } from '../testing/plans';
import { somebody } from '../testing/staff';
import { listSessions, SESSIONS_ON_PAGE } from '.';

const DAY = 86_400_000;
const ODE = somebody('ode', 'coordinator', null);
const LIGHT = somebody('light', 'coordinator', 'lighthouse');
const ALL = { part: 'today', text: '', siteId: null, kind: null, page: 0 } as const;
let house: House;
const list = async (asked: Partial<Parameters<typeof listSessions>[2]> = {}, staff = ODE, now = NINE) => {
	const { sessions, ...rest } = await listSessions(house.otium.db, staff, { ...ALL, ...asked }, now);
	return { ...rest, names: sessions.map(({ name }) => name) };
};

/** Two sites, one of them half a day ahead; besides the house's own session at nine 120 that are over, two over days, and three to come. */
beforeAll(async () => {
	house = await buildHouse();
	const { db } = house.otium;
	await db('site').insert({ id: 'lighthouse', name: 'Lighthouse Point', zone: 'Pacific/Auckland' });
	await db('room').insert({ id: 'lamp', site_id: 'lighthouse', name: 'Lamp Room', seat_rows: 4, seats_per_row: 4 });
	const { id: _, ...like } = await db('session').where({ id: 's1' }).first();
	const session = (name: string, opens: number, change = {}) => ({
		...like,
		id: name,
		name,
		opens,
		closes: null,
		door_code: null,
		...change
	});
	await insertMany(db, 'session', [
		...Array.from({ length: 120 }, (_, i) => session(`Past ${i + 1}`, NINE - (i + 1) * DAY, { ended_at: NINE })),
		session('Since Sunday', NINE - 2 * DAY, { closes: NINE + DAY, kind: 'make_up' }),
		session('Until yesterday', NINE - 2 * DAY, { closes: NINE + DAY, ended_at: NINE - DAY, kind: 'make_up' }),
		session('Tonight', Date.parse('2026-12-08T23:59:00Z')),
		session('Tomorrow', Date.parse('2026-12-09T00:00:00Z'), { kind: 'rehearsal' }),
		// Ten in the morning of the ninth, on the clocks of Lighthouse Point: their tomorrow.
		session('Far away', Date.parse('2026-12-08T21:00:00Z'), { room_id: 'lamp' })
	]);
});
afterAll(() => house.close());

describe('the list of sessions', () => {
	it('has three parts, each by the calendar of its site, today’s and later ones soonest first', async () => {
		const { names, counts, total } = await list();
		expect(names).toEqual(['Since Sunday', 'Numbers · Watch A', 'Tonight']);
		expect({ counts, total }).toEqual({ counts: { today: 3, later: 2, past: 121 }, total: 3 });
		expect((await list({ part: 'later' })).names).toEqual(['Far away', 'Tomorrow']);
		// Two hours later it is the ninth there, and still the eighth here.
		const noon = Date.parse('2026-12-08T11:30:00Z');
		expect((await list({}, ODE, noon)).names).toEqual(['Since Sunday', 'Numbers · Watch A', 'Far away', 'Tonight']);
	});

	it('past ones come page by page, the latest first', async () => {
		const pages = await Promise.all([0, 1, 2].map((page) => list({ part: 'past', page, kind: 'live' })));
		expect(pages.map(({ names }) => names.length)).toEqual([50, 50, 20]);
		expect(pages.flatMap(({ names }) => names)).toEqual(Array.from({ length: 120 }, (_, i) => `Past ${i + 1}`));
		expect(pages.map(({ total }) => total)).toEqual([120, 120, 120]);
		expect(SESSIONS_ON_PAGE).toBe(50);
		// An address that somebody kept from a time when there were more.
		expect(await list({ part: 'past', page: 99, kind: 'live' })).toEqual(pages[2]);
	});

	it('is narrowed by words of name, room and site, by site and by kind; how many there are stays told', async () => {
		const found = await list({ part: 'past', text: 'past 11 chart' });
		expect(found.names).toEqual(['Past 11', ...Array.from({ length: 10 }, (_, i) => `Past ${110 + i}`)]);
		expect(found).toMatchObject({ total: 11, counts: { past: 121 } });
		expect((await list({ part: 'past', kind: 'make_up' })).names).toEqual(['Until yesterday']);
		expect((await list({ part: 'later', siteId: 'lighthouse' })).names).toEqual(['Far away']);
		expect((await list({ part: 'later', kind: 'rehearsal' })).names).toEqual(['Tomorrow']);
		expect((await list({ part: 'past', text: '%' })).names).toEqual([]);
	});

	it('is of the sites that somebody prepares', async () => {
		expect(await list({ part: 'later' }, LIGHT)).toMatchObject({ names: ['Far away'], counts: { today: 0, past: 0 } });
		expect((await list({ part: 'past', siteId: 'quayside' }, LIGHT)).names).toEqual([]);
	});

	it('tells how many are expected, and reads no place of another session for it', async () => {
		const { db } = house.otium;
		const { sessions } = await listSessions(db, ODE, ALL, NINE);
		expect(sessions.map(({ expected }) => expected)).toEqual([0, 3, 0]);
		expect(await scansDuring(db, ['roster', 'sitting'], () => listSessions(db, ODE, ALL, NINE))).toEqual([]);
	});
});
