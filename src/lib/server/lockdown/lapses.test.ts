import { afterEach, beforeEach, expect, it } from 'vitest';
import { DEFAULT_RULES } from '$core/session';
import { searchLogbook } from '../logbook';
import { bringToWork, buildHouse, openDoor, type House } from '../testing/house';
import { noteLapses } from '.';

let house: House;
beforeEach(async () => {
	house = await buildHouse({ rules: { lockdown: { ...DEFAULT_RULES.lockdown, level: 'watched' } } });
});
afterEach(() => house.close());

it('a lapse that is sent again, because its answer was lost, is told once', async () => {
	await bringToWork(house, 0, await openDoor(house));
	const now = house.otium.now();
	const lapse = { id: 'lapse-0001', kind: 'copy' as const, from: now, to: now };
	await noteLapses(house.otium, 'sit0', [lapse]);
	await noteLapses(house.otium, 'sit0', [lapse, { ...lapse, id: 'lapse-0002' }]);
	expect(await searchLogbook(house.otium.db, { sittingId: 'sit0', text: 'lapsed' })).toHaveLength(2);
});
