import { nanoid } from 'nanoid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { CommandBody } from '$core/sitting';
import { MINUTE } from '$core/time';
import { giveGrant } from '../grants';
import { endSession, findSession, rosterFor, saveSession, tendOwnWindows } from '../session';
import { act } from '../sitting';
import {
	bringToWork,
	buildHouse,
	COORDINATOR,
	makeUpInput,
	NINE,
	openDoor,
	planMakeUp,
	PROCTOR,
	type House
} from '../testing/house';
import { turnsDuring } from '../testing/turns';
import { accountFor } from '.';

let house: House;
beforeEach(async () => void (house = await buildHouse()));
afterEach(() => house.close());

const account = async (id = 's1') => accountFor(house.otium.db, (await findSession(house.otium.db, id))!);
const command = (body: CommandBody, i = 0) =>
	act(house.otium, [{ id: nanoid(), sittingId: `sit${i}`, by: PROCTOR, body }]);

describe('the ledger of a session', () => {
	it('follows who was carried over out of an own window and went on elsewhere', async () => {
		const code = await openDoor(house);
		await giveGrant(house.otium, COORDINATOR, nanoid(), {
			candidateId: 'can0',
			scope: { kind: 'session', id: 's1' },
			body: { kind: 'own_window', opens: NINE, closes: NINE + 90 * MINUTE },
			reason: 'ferry',
			givenBy: 'ode',
			givenAt: NINE
		});
		await bringToWork(house, 0, code);
		house.clock.at = NINE + 10 * MINUTE;
		await endSession(house.otium, 's1', PROCTOR);
		expect((await account()).ledger.columns.still_open).toEqual(['sit0']);
		await command({ kind: 'carry_over', reason: 'unwell' });
		house.clock.at = NINE + 100 * MINUTE;
		await tendOwnWindows(house.otium, 's1', PROCTOR);
		await planMakeUp(house);
		const { ledger, lines } = await account();
		expect(lines.find((line) => line.sittingId === 'sit0')!.state).toBe('carried_over');
		expect(ledger).toMatchObject({ addsUp: true, columns: { still_open: [], carried_over: ['sit0'] } });
	});

	it('of a large room is added up while everybody else has their turn', async () => {
		await house.close();
		house = await buildHouse({ candidates: 130 });
		expect(await turnsDuring(() => account())).toBeGreaterThanOrEqual(5);
		const { lines, ledger } = await account();
		expect([lines.length, ledger.expected]).toEqual([130, 130]);
	});

	it('says when a sitting stands on no roster, and when a place on the roster has no sitting here', async () => {
		await house.otium.db('roster').where({ sitting_id: 'sit2' }).delete();
		expect((await account()).ledger).toMatchObject({ addsUp: false, surplus: ['sit2'] });
		await house.otium.db('roster').insert({ session_id: 's1', sitting_id: 'sit2' });
		expect((await account()).ledger.addsUp).toBe(true);
		await openDoor(house);
		await endSession(house.otium, 's1', PROCTOR);
		const next = await planMakeUp(house);
		await house.otium.db('roster').where({ session_id: 's1', sitting_id: 'sit1' }).update({ outcome: null });
		expect((await account()).ledger).toMatchObject({ addsUp: false, missing: ['sit1'] });
		expect((await account(next)).ledger.addsUp).toBe(true);
	});

	it('has back who was taken off a make-up again, and they can be planned elsewhere', async () => {
		await openDoor(house);
		await endSession(house.otium, 's1', PROCTOR);
		const id = await planMakeUp(house);
		const input = makeUpInput({ only: ['can1', 'can2'] });
		expect((await saveSession(house.otium, COORDINATOR, 'winter', input, { id, revision: 1 })).ok).toBe(true);
		expect((await account()).ledger).toMatchObject({
			addsUp: true,
			columns: { absent: expect.arrayContaining(['sit0']) }
		});
		expect((await account(id)).ledger).toMatchObject({ addsUp: true, expected: 2 });
		const roster = await rosterFor(house.otium.db, {
			administrationId: 'winter',
			paperId: 'numbers',
			kind: 'make_up',
			groupIds: ['watch'],
			only: null,
			alsoIds: [],
			attempts: { most: 1, waitMinutes: 0, laterWaitMinutes: 0 },
			opens: NINE + 600 * MINUTE
		});
		expect(roster.people.map((person) => person.candidateId)).toEqual(['can0']);
	});

	it('tells how many answers came after the time', async () => {
		await house.close();
		house = await buildHouse({ timing: { graceMinutes: 5, limitMinutes: 60, atClose: 'finish' } });
		const epoch = await bringToWork(house, 0, await openDoor(house));
		house.clock.at = NINE + 62 * MINUTE;
		await house.otium.answers.save('sit0', epoch, [
			{ seq: 1, questionId: 'q1', value: true, marked: false, struck: [], inViewMs: 1 }
		]);
		const lates = (await account()).lines.map(({ sittingId, late }) => [sittingId, late]);
		expect(lates).toContainEqual(['sit0', 1]);
		expect(lates).toContainEqual(['sit1', 0]);
		expect(lates[0]).toEqual(['sit0', 1]);
	});
});
