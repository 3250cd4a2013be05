import { afterEach, beforeEach, expect, it } from 'vitest';
import { verifyLogbook, searchLogbook } from '../logbook';
import { postLetter } from '../mail';
import { findSession } from '../session';
import { transact } from '../db';
import { bringToWork, buildHouse, COORDINATOR, openDoor, type House } from '../testing/house';
import { ODE } from '../testing/sat';
import { verifyRecord } from '../proof';
import { callOff, foreseeCallingOff } from '.';

let house: House;
beforeEach(async () => void (house = await buildHouse()));
afterEach(() => house.close());
const off = (tells = true) => callOff(house.otium, ODE, COORDINATOR, 's1', { why: 'The hall is flooded.', tells });
const rows = (table: string) => house.otium.db(table);

it('nobody is expected, absent or owed by it; whoever was told is written to once; the record keeps it, and a draft what was planned', async () => {
	const { db } = house.otium;
	const people = (await rows('sitting').where({ session_id: 's1' })).length;
	expect(people).toBeGreaterThan(1);
	await transact(db, async (trx) => {
		for (const kind of ['invitation', 'reminder'] as const)
			await postLetter(
				trx,
				{
					kind,
					sessionId: 's1',
					name: 'Given0 Family0',
					address: 'can0@saltmarsh.example',
					subject: 'x',
					body: 'x'
				} as never,
				house.clock.at
			);
		await trx('mail').update({ state: 'sent' });
	});
	const session = (await findSession(db, 's1'))!;
	const foreseen = await foreseeCallingOff(db, session);
	expect([foreseen.people.length, foreseen.told]).toEqual([
		people,
		[{ name: 'Given0 Family0', address: 'can0@saltmarsh.example' }]
	]);

	const { draftId, told } = await off();
	expect(told).toBe(1);
	expect(await rows('session').where({ id: 's1' })).toEqual([]);
	expect(await rows('sitting')).toEqual([]);
	expect(await rows('mail').where({ kind: 'called_off' }).pluck('to_address')).toEqual(['can0@saltmarsh.example']);
	expect(JSON.parse((await rows('session_draft').where({ id: draftId }).first()).input).input).toMatchObject({
		name: session.name,
		paperId: session.paper.id
	});
	const [line] = await searchLogbook(db, { sessionId: 's1' } as never);
	expect(line.body).toMatchObject({ name: session.name, people, told: 1, why: 'The hall is flooded.' });
	expect(await verifyLogbook(db)).toMatchObject({ broken: null });
	expect((await verifyRecord(house.otium)).broken).toBeNull();
	// Sent twice, there is nothing left to call off.
	await expect(off()).rejects.toMatchObject({ status: 404 });
});

it('once somebody has come it is ended instead, and nothing is taken away', async () => {
	await bringToWork(house, 0, await openDoor(house));
	const before = await rows('sitting').orderBy('id');
	await expect(off()).rejects.toMatchObject({ status: 422 });
	expect(await rows('sitting').orderBy('id')).toEqual(before);
	expect(await rows('session').where({ id: 's1' })).toHaveLength(1);
});

it('nobody is written to where the coordinator does not want it', async () => {
	expect((await off(false)).told).toBe(0);
	expect(await rows('mail').where({ kind: 'called_off' })).toEqual([]);
});
