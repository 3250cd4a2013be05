import { afterEach, beforeEach, expect, it } from 'vitest';
import { MINUTE } from '$core/time';
import { findSession } from '../session';
import { bringToWork, buildHouse, giveHere, NINE, openDoor, type House } from '../testing/house';
import { pictureOfNobody, pictureOfOne } from '.';

let house: House;
beforeEach(async () => {
	house = await buildHouse();
});
afterEach(() => house.close());

it('what one candidate will see has their minutes, size, colours and sentences; and is the same once they work', async () => {
	await giveHere(house, { kind: 'extra_time', factor: 1.5, minutes: 0 });
	await giveHere(house, { kind: 'display', magnification: 1.5, contrast: true });
	const { db } = house.otium;
	const session = (await findSession(db, 's1'))!;
	const nobody = (await pictureOfNobody(db, session, 1)).picture;
	const mine = async () => (await pictureOfOne(db, session, 'sit0', 1))!.picture;
	const { time, display, told, candidate } = await mine();
	expect([nobody.time.allotted, time.allotted]).toEqual([60 * MINUTE, 90 * MINUTE]);
	expect([time.remaining, display.magnification, display.contrast]).toEqual([90 * MINUTE, 1.5, true]);
	expect(candidate).toMatchObject({ name: 'Given0 Family0', number: 'DO-1001' });
	expect(JSON.stringify(told)).toContain('You have 90 minutes');
	await bringToWork(house, 0, await openDoor(house));
	house.clock.at = NINE + 30 * MINUTE;
	expect((await mine()).time).toEqual(time);
	// Another candidate has none of it, and whoever is not of this session is nobody here.
	expect((await pictureOfOne(db, session, 'sit1', 1))!.picture.time.allotted).toBe(60 * MINUTE);
	expect(await pictureOfOne(db, session, 'elsewhere', 1)).toBeNull();
});

it('of those who start together tells when they end', async () => {
	const session = (await findSession(house.otium.db, 's1'))!;
	const timing = { ...session.rules.timing, clockStarts: 'room' as const };
	const together = { ...session, rules: { ...session.rules, timing } };
	const at = async (one: typeof session) => (await pictureOfNobody(house.otium.db, one, 1)).picture.time.deadline;
	expect([await at(session), await at(together)]).toEqual([null, NINE + 60 * MINUTE]);
});
