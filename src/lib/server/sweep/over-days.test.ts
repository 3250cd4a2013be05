import { afterEach, expect, it } from 'vitest';
import { drawToday } from '../today';
import { findSession } from '../session';
import { loadSitting } from '../sitting';
import { bringToWork, buildHouse, NINE, openDoor, type House } from '../testing/house';
import { sweep } from '.';

const HOUR = 3_600_000;
const DAY = 24 * HOUR;
let house: House;
afterEach(() => house.close());

const session = async () => (await findSession(house.otium.db, 's1'))!;
const at = async (ms: number) => {
	house.clock.at = NINE + ms;
	await sweep(house.otium);
	return session();
};

it('a window over days has a code for each day, goes on overnight, and ends after its last day', async () => {
	house = await buildHouse({ timing: { lastEntryMinutes: null, limitMinutes: 60, atClose: 'finish' } });
	await house.otium
		.db('session')
		.where({ id: 's1' })
		.update({ closes: NINE + 2 * DAY + 8 * HOUR });
	const first = await openDoor(house);
	const codes = [first];
	for (const day of [1, 2]) {
		const { doorCode, endedAt, codeDiesAt } = await at(day * DAY);
		expect(endedAt).toBeNull();
		expect(codeDiesAt).toBeGreaterThan(house.clock.at);
		codes.push(doorCode!);
	}
	expect(new Set(codes).size).toBe(3);
	// Whoever comes on the third day comes with that day's code.
	await bringToWork(house, 0, codes[2]);
	expect((await loadSitting(house.otium.db, 'sit0', house.clock.at))!.sitting.state).toBe('working');
	await expect(bringToWork(house, 1, codes[0])).rejects.toThrow();
	expect((await at(2 * DAY + 14 * HOUR)).endedAt).toBeNull();
	const over = await at(2 * DAY + 18 * HOUR);
	expect(over.endedAt).not.toBeNull();
	expect(over.doorCode).toBeNull();
});

it('stands on the page of each of its days', async () => {
	house = await buildHouse();
	await house.otium
		.db('session')
		.where({ id: 's1' })
		.update({ closes: NINE + 2 * DAY });
	const staff = { id: 'x', name: 'x', roles: [{ role: 'coordinator', siteId: null }] } as never;
	const bars = async (ms: number) =>
		(await drawToday(house.otium.db, staff, 'Europe/London', NINE + ms)).lanes.flatMap((lane) => lane.bars);
	expect(await bars(-2 * DAY)).toHaveLength(0);
	for (const day of [0, 1, 2]) {
		const [bar] = await bars(day * DAY);
		expect(bar.lastEnds - bar.door).toBeLessThanOrEqual(DAY);
		expect(bar.lastEnds).toBeGreaterThan(bar.door);
	}
	expect(await bars(3 * DAY)).toHaveLength(0);
});
