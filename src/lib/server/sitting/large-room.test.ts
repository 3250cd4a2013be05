import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { insertMany } from '../db';
import { verifyLogbook } from '../logbook';
import { sendMessage } from '../messages';
import { rosterIds } from '../session';
import { buildHouse, openDoor, PROCTOR, type House } from '../testing/house';
import { act } from '.';

/** More than the database takes in one statement, several times over. */
const MANY = 1_300;

let house: House;
beforeEach(async () => {
	house = await buildHouse({ candidates: MANY });
	await openDoor(house);
});
afterEach(() => house.close());
const ids = () => rosterIds(house.otium.db, 's1');

describe('a room of more than a thousand', () => {
	it('is acted on at once, each told apart, and the chain holds', async () => {
		const outcomes = await act(
			house.otium,
			(await ids()).map((sittingId) => ({
				id: `hold-${sittingId}`,
				sittingId,
				by: PROCTOR,
				body: { kind: 'hold' as const, reason: 'not yet', stopsClock: true }
			}))
		);
		expect(outcomes.filter((outcome) => outcome.ok)).toHaveLength(MANY);
		expect(await house.otium.db('sitting').where({ state: 'on_hold' })).toHaveLength(MANY);
		expect(await house.otium.db('command_answer')).toHaveLength(MANY);
		expect((await verifyLogbook(house.otium.db)).broken).toBeNull();
	});

	it('comes back after a power cut with every line counted as lost', async () => {
		const line = { up: true, since: house.otium.now() };
		const device = { id: 'a device', name: 'Laptop', epoch: 1 };
		for (const { id, fold } of await house.otium.db('sitting').select('id', 'fold')) {
			const working = { ...JSON.parse(fold), state: 'working', beganAt: house.otium.now(), line, device };
			await house.otium
				.db('sitting')
				.where({ id })
				.update({ state: 'working', fold: JSON.stringify(working) });
		}
		const otium = await house.restart();
		const lost = await otium.db('logbook').where({ kind: 'line_lost' });
		expect(lost).toHaveLength(MANY);
	});

	it('is sent a message, each their own', async () => {
		await sendMessage(house.otium, PROCTOR, 's1', 'to-everyone', await ids(), 'Ten minutes more.');
		expect(await house.otium.db('message')).toHaveLength(MANY);
	});
});

describe('inserting many', () => {
	it('takes none, and more than one statement can hold', async () => {
		await insertMany(house.otium.db, 'meta', []);
		const rows = Array.from({ length: MANY }, (_, i) => ({ key: `many ${i}`, value: 'v' }));
		await insertMany(house.otium.db, 'meta', rows);
		await insertMany(house.otium.db, 'meta', rows, (insert) => insert.onConflict('key').ignore());
		expect(await house.otium.db('meta').where('key', 'like', 'many %')).toHaveLength(MANY);
	});
});
