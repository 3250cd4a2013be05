import { nanoid } from 'nanoid';
import fc from 'fast-check';
import { afterEach, describe, expect, it } from 'vitest';
import { MINUTE } from '$core/time';
import { giveGrant } from '../grants';
import { act, loadSitting } from '../sitting';
import { bringToWork, buildHouse, COORDINATOR, NINE, openDoor, PROCTOR, type House } from '../testing/house';
import { findSession, foreseeMove, moveWindow } from '.';
import { runs } from '$core/testing/runs';

let house: House;
afterEach(() => house.close());
const session = async () => (await findSession(house.otium.db, 's1'))!;
const move = async (opens: number, closes: number | null) =>
	moveWindow(
		house.otium,
		COORDINATOR,
		's1',
		{ opens, closes },
		{ reason: 'fog', revision: (await session()).revision }
	);
const sitting = async (i: number) => (await loadSitting(house.otium.db, `sit${i}`, house.clock.at))!;

describe('moving everyone’s window', () => {
	it('tells who gains, who works on, who comes and who stays, and does just that', async () => {
		house = await buildHouse({ candidates: 4, timing: { atClose: 'cut' }, closes: NINE + 50 * MINUTE });
		const code = await openDoor(house);
		for (const i of [0, 1]) await bringToWork(house, i, code);
		await giveGrant(house.otium, COORDINATOR, 'window-of-three', {
			candidateId: 'can3',
			scope: { kind: 'session', id: 's1' },
			body: { kind: 'own_window', opens: NINE + 100 * MINUTE, closes: NINE + 180 * MINUTE },
			reason: 'x',
			givenBy: 'ode',
			givenAt: NINE
		});
		house.clock.at = NINE + 10 * MINUTE;
		await act(house.otium, [
			{ id: nanoid(), sittingId: 'sit1', by: PROCTOR, body: { kind: 'hand_in', receipt: 'r', reason: null } }
		]);
		const next = { opens: NINE, closes: NINE + 90 * MINUTE };
		const { lines } = await foreseeMove(house.otium.db, await session(), next, house.clock.at);
		expect(lines.map(({ sittingId, fate, minutes }) => [sittingId, fate, minutes]).sort()).toEqual([
			['sit0', 'gains', 10],
			['sit1', 'stays', 0],
			['sit2', 'comes', 0],
			['sit3', 'own_window', 0]
		]);
		expect(await move(next.opens, next.closes)).toEqual({ ok: true });
		expect((await sitting(0)).reckoning.deadline).toBe(NINE + 60 * MINUTE);
		expect((await sitting(1)).sitting.state).toBe('handed_in');
		expect((await sitting(3)).reckoning.windowEnd).toBe(NINE + 180 * MINUTE);
		const stale = moveWindow(
			house.otium,
			COORDINATOR,
			's1',
			{ opens: NINE, closes: null },
			{ reason: 'x', revision: 1 }
		);
		expect(await stale).toMatchObject({ ok: false, message: expect.stringContaining('Somebody has just changed') });
	});

	it.each([
		[NINE, NINE + 75 * MINUTE, 'the times that it has'],
		[NINE, NINE - MINUTE, 'close before it opens'],
		[NINE, NINE + 5 * MINUTE, 'would be over'],
		[NINE + 30 * MINUTE, NINE + 90 * MINUTE, 'Somebody has begun']
	])('from %i to %i is refused: %s', async (opens, closes, words) => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		house.clock.at = NINE + 10 * MINUTE;
		expect(await move(opens, closes)).toMatchObject({ ok: false, message: expect.stringContaining(words) });
	});

	it('property: whatever is moved, nobody who has ended begins again, and no answer or state changes', async () => {
		house = await buildHouse({ candidates: 4, timing: { atClose: 'cut' } });
		const code = await openDoor(house);
		for (const i of [0, 1, 2]) await bringToWork(house, i, code);
		const { db } = house.otium;
		await house.otium.answers.save('sit0', 1, [
			{ seq: 1, questionId: 'q1', value: true, marked: false, struck: [], inViewMs: 1 }
		]);
		await act(house.otium, [
			{ id: nanoid(), sittingId: 'sit1', by: PROCTOR, body: { kind: 'hand_in', receipt: 'r', reason: null } }
		]);
		const standing = async () =>
			JSON.stringify([await db('sitting').orderBy('id').select('id', 'state', 'fold'), await db('answer_standing')]);
		const before = await standing();
		const closes = fc.option(fc.integer({ min: -30, max: 300 }).map((minutes) => NINE + minutes * MINUTE));
		await fc.assert(
			fc.asyncProperty(fc.array(closes, { minLength: 1, maxLength: 5 }), async (all) => {
				for (const one of all) await move(NINE, one);
				expect(await standing()).toBe(before);
			}),
			{ numRuns: runs(20) }
		);
	});
});
