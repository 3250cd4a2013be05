import { afterEach, expect, it, vi } from 'vitest';
import { MINUTE } from '$core/time';
import { findSession } from '../session';
import { loadSitting } from '../sitting';
import { bringToWork, buildHouse, NINE, openDoor, type House } from '../testing/house';
import { sweep } from '.';

let house: House;
afterEach(async () => {
	vi.restoreAllMocks();
	await house.close();
});

it('a step that fails stops no other, a session that fails stops no other, and a row of failures is logged once', async () => {
	house = await buildHouse({ timing: { limitMinutes: 30, graceMinutes: 0, atClose: 'finish' } });
	await bringToWork(house, 0, await openDoor(house));
	const base = await house.otium.db('session').where({ id: 's1' }).first();
	const later = { door_code: null, entry_closed_at: null, opens: NINE + 60 * MINUTE };
	await house.otium.db('session').insert({ ...base, ...later, id: 'broken', turning_key: 'not a key' });
	await house.otium.db('session').insert({ ...base, ...later, id: 'whole' });
	await house.otium.db.raw(
		"CREATE TRIGGER stuck BEFORE UPDATE ON session WHEN NEW.id = 'broken' BEGIN SELECT RAISE(ABORT, 'broken'); END"
	);
	const log = vi.spyOn(house.otium.log, 'error').mockImplementation(() => {});
	vi.spyOn(house.otium.pace, 'sweep').mockRejectedValue(new Error('pace'));
	house.clock.at = NINE + 50 * MINUTE;
	for (let i = 0; i < 3; i++) await sweep(house.otium);
	expect((await loadSitting(house.otium.db, 'sit0', house.clock.at))!.sitting.state).toBe('time_up');
	expect((await findSession(house.otium.db, 'whole'))!.doorCode).not.toBeNull();
	expect((await findSession(house.otium.db, 'broken'))!.doorCode).toBeNull();
	expect(log.mock.calls.map(([about]) => (about as unknown as { step: string }).step)).toEqual([
		'pace',
		'doors of broken'
	]);
});

it('answers to commands are remembered for a week, not for ever', async () => {
	house = await buildHouse();
	await openDoor(house);
	await bringToWork(house, 0, (await findSession(house.otium.db, 's1'))!.doorCode!);
	const { deleteOutlived } = await import('../db');
	const count = async () => (await house.otium.db('command_answer')).length;
	const before = await count();
	expect(before).toBeGreaterThan(0);
	await deleteOutlived(house.otium.db, NINE + 6 * 86_400_000);
	expect(await count()).toBe(before);
	await deleteOutlived(house.otium.db, NINE + 8 * 86_400_000);
	expect(await count()).toBe(0);
});
