import { existsSync, readdirSync } from 'node:fs';
import { join } from 'node:path';
import sharp from 'sharp';
import { afterEach, expect, it } from 'vitest';
import { retentionOf } from '../retention';
import { tidy } from '../sweep';
import { buildHouse, NINE, planMakeUp, openDoor, PROCTOR, type House } from '../testing/house';
import { act } from '../sitting';
import { PHOTO_KEPT_MS, readPhoto, savePhoto } from '.';

let house: House;
afterEach(() => house.close());
const DAY = 86_400_000;

it('photos go a year after the last session that somebody is expected in, listed before and told after', async () => {
	house = await buildHouse();
	const { otium, clock, dir } = house;
	const photo = await sharp({ create: { width: 8, height: 8, channels: 3, background: '#123' } })
		.png()
		.toBuffer();
	for (const id of ['can0', 'can1', 'can2']) expect(await savePhoto(otium, id, photo)).toBe(true);
	const kept = async () =>
		(await retentionOf(otium.db, 'winter', clock.at)).find(({ what }) => /Photos of/.test(what))!;
	expect(await kept()).toMatchObject({ there: 3, next: NINE + PHOTO_KEPT_MS });

	// One is expected again half a year later.
	await openDoor(house);
	await act(otium, [{ id: 'absent-one', sittingId: 'sit0', by: PROCTOR, body: { kind: 'mark_absent' } }]);
	await planMakeUp(house, { only: ['can0'], date: '2027-06-08' });
	clock.at = NINE + PHOTO_KEPT_MS - DAY;
	await tidy(otium);
	expect(await kept()).toMatchObject({ there: 3 });
	clock.at = NINE + PHOTO_KEPT_MS + DAY;
	await tidy(otium);
	expect(await kept()).toMatchObject({ there: 1 });
	expect(await readPhoto(otium, 'can0')).not.toBeNull();
	expect(await readPhoto(otium, 'can1')).toBeNull();
	expect(existsSync(join(dir, 'photos')) && readdirSync(join(dir, 'photos'))).toHaveLength(1);
	const told = await otium.db('logbook').where({ kind: 'deleted_in_time' }).pluck('body');
	expect(told.map((body) => JSON.parse(body))).toEqual([{ what: 'photos', count: 2 }]);
});
