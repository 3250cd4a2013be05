import { nanoid } from 'nanoid';
import { afterEach, describe, expect, it } from 'vitest';
import { MINUTE } from '$core/time';
import { accountFor, resultsCsv } from '../closing';
import { searchLogbook, verifyLogbook } from '../logbook';
import { endSession, findSession, foreseeEnding } from '../session';
import { sweep } from '../sweep';
import { arriveAt, bringToWork, buildHouse, COORDINATOR, NINE, openDoor, PROCTOR, type House } from '../testing/house';
import { act, loadSitting } from '.';

let house: House;
afterEach(() => house.close());
const state = async (i: number) => (await loadSitting(house.otium.db, `sit${i}`, house.otium.now()))!.sitting.state;
const staffAct = (i: number, kind: 'let_in' | 'mark_absent', id = nanoid()) =>
	act(house.otium, [{ id, sittingId: `sit${i}`, by: PROCTOR, body: { kind } }]);

describe('acting', () => {
	it('does a command once and gives a repeated one the answer it got, also after a restart', async () => {
		house = await buildHouse();
		const code = await openDoor(house);
		await arriveAt(house, 0, code);
		const first = await staffAct(0, 'let_in', 'the-same-id');
		expect(first).toEqual([{ sittingId: 'sit0', ok: true, changed: true }]);
		await house.restart();
		expect(await staffAct(0, 'let_in', 'the-same-id')).toEqual(first);
		const told = await searchLogbook(house.otium.db, { sittingId: 'sit0', text: 'let_in' });
		expect(told).toHaveLength(1);
	});

	it('remembers refusals too, and refuses an id that was used for something else', async () => {
		house = await buildHouse();
		await openDoor(house);
		const [refused] = await staffAct(0, 'let_in', 'refused-id');
		expect(refused).toMatchObject({ ok: false, refusal: { code: 'not_from_this_state' } });
		await staffAct(0, 'mark_absent', 'other-id');
		expect(await staffAct(0, 'let_in', 'refused-id')).toEqual([refused]);
		expect(await staffAct(1, 'let_in', 'other-id')).toMatchObject([{ ok: false, refusal: { code: 'gone' } }]);
	});

	it('lets one of two proctors win and tells the other that it is done', async () => {
		house = await buildHouse();
		const code = await openDoor(house);
		await arriveAt(house, 0, code);
		const [a, b] = await Promise.all([staffAct(0, 'let_in'), staffAct(0, 'let_in')]);
		expect([a[0].ok, b[0].ok].filter(Boolean)).toHaveLength(1);
		expect([a[0], b[0]].find((outcome) => !outcome.ok)).toMatchObject({ refusal: { code: 'already' } });
	});

	it('decides each of many by itself: one refusal does not undo the others', async () => {
		house = await buildHouse();
		const code = await openDoor(house);
		await arriveAt(house, 0, code);
		await arriveAt(house, 2, code);
		const outcomes = await act(
			house.otium,
			[0, 1, 2].map((i) => ({ id: nanoid(), sittingId: `sit${i}`, by: PROCTOR, body: { kind: 'let_in' } }))
		);
		expect(outcomes.map((outcome) => outcome.ok)).toEqual([true, false, true]);
		expect([await state(0), await state(1), await state(2)]).toEqual(['let_in', 'expected', 'let_in']);
	});
});

describe('what time brings', () => {
	it('time up is found by the sweep; while the server was away nobody’s time ran', async () => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		house.clock.at += 60 * MINUTE;
		await sweep(house.otium);
		expect(await state(0)).toBe('working');
		await house.otium.presence.noteAlive();
		house.clock.at += 3 * 60 * MINUTE;
		await house.restart();
		await sweep(house.otium);
		expect(await state(0)).toBe('working');
		house.clock.at += 60 * MINUTE;
		await sweep(house.otium);
		expect(await state(0)).toBe('time_up');
	});

	it('does not run out while a hold stands, and does so later by just that much', async () => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		const hold = { kind: 'hold', reason: 'out', stopsClock: true } as const;
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: hold }]);
		house.clock.at += 90 * MINUTE;
		await sweep(house.otium);
		expect(await state(0)).toBe('on_hold');
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'resume' } }]);
		house.clock.at += 60 * MINUTE;
		await sweep(house.otium);
		expect(await state(0)).toBe('working');
		house.clock.at += 2 * MINUTE;
		await sweep(house.otium);
		expect(await state(0)).toBe('time_up');
	});

	it('makes the code when the door opens, names who has not come at last entry, kills the code at midnight', async () => {
		house = await buildHouse();
		house.clock.at = NINE - 16 * MINUTE;
		await sweep(house.otium);
		expect((await findSession(house.otium.db, 's1'))!.doorCode).toBeNull();
		house.clock.at = NINE - 14 * MINUTE;
		await sweep(house.otium);
		const { doorCode } = (await findSession(house.otium.db, 's1'))!;
		expect(doorCode).toMatch(/^[0-9A-Z]{7}$/);
		await arriveAt(house, 0, doorCode!);
		house.clock.at = NINE + 16 * MINUTE;
		await sweep(house.otium);
		await sweep(house.otium);
		const closed = await searchLogbook(house.otium.db, { text: 'entry_closed' });
		expect(closed).toHaveLength(1);
		expect(closed[0].body).toEqual({ notArrived: ['DO-1002', 'DO-1003'] });
		house.clock.at = Date.parse('2026-12-09T00:00:01Z');
		await sweep(house.otium);
		expect(await findSession(house.otium.db, 's1')).toMatchObject({ doorCode: null, endedAt: house.clock.at });
		expect([await state(0), await state(1)]).toEqual(['absent', 'absent']);
	});
});

describe('ending and the ledger', () => {
	it('does what it foresaw, and adds up', async () => {
		house = await buildHouse({ candidates: 4 });
		const code = await openDoor(house);
		const epoch = await bringToWork(house, 0, code);
		await bringToWork(house, 1, code);
		await arriveAt(house, 2, code);
		const answer = { seq: 1, questionId: 'q1', value: true, marked: false, struck: [], inViewMs: 5_000 };
		await house.otium.answers.save('sit0', epoch, [answer]);
		await act(house.otium, [
			{
				id: nanoid(),
				sittingId: 'sit0',
				by: { role: 'candidate', id: 'can0' },
				body: { kind: 'hand_in', receipt: 'ABCDE-12345', reason: null }
			}
		]);

		const foreseen = await foreseeEnding(house.otium.db, 's1', house.otium.now());
		expect(foreseen.map((line) => line.fate)).toEqual(['stays', 'carried_over', 'absent', 'absent']);
		expect(await endSession(house.otium, 's1', PROCTOR)).toEqual({ ok: true });
		expect(await endSession(house.otium, 's1', PROCTOR)).toMatchObject({ ok: false });
		expect(await Promise.all([0, 1, 2, 3].map(state))).toEqual(['handed_in', 'carried_over', 'absent', 'absent']);

		const session = (await findSession(house.otium.db, 's1'))!;
		const account = await accountFor(house.otium.db, session);
		expect(account.ledger).toMatchObject({ addsUp: true, expected: 4, accounted: 4 });
		expect(account.lines[0]).toMatchObject({ score: { points: 1, outOf: 6, blanks: 5 }, receipt: 'ABCDE-12345' });
		expect(resultsCsv(session, account)).toContain(
			'"DO-1001","Given0 Family0","A1","Handed in","1","6","0","0","1","6",'
		);
		expect((await searchLogbook(house.otium.db, { text: 'ABCDE-12345' })).map((line) => line.kind)).toEqual([
			'handed_in'
		]);
	});

	it('collected: what those at work have is handed in, also on hold, and a window of one’s own goes on', async () => {
		house = await buildHouse();
		const code = await openDoor(house);
		const { giveGrant } = await import('../grants');
		await giveGrant(house.otium, COORDINATOR, nanoid(), {
			candidateId: 'can2',
			scope: { kind: 'session', id: 's1' },
			body: { kind: 'own_window', opens: NINE, closes: NINE + 300 * MINUTE },
			reason: 'ferry',
			givenBy: 'ode',
			givenAt: NINE
		});
		for (const i of [0, 1, 2]) await bringToWork(house, i, code);
		await act(house.otium, [
			{ id: nanoid(), sittingId: 'sit1', by: PROCTOR, body: { kind: 'hold', reason: 'x', stopsClock: true } }
		]);
		const foreseen = await foreseeEnding(house.otium.db, 's1', house.otium.now());
		expect(foreseen.map((line) => line.isAtWork)).toEqual([true, true, true]);
		expect(await endSession(house.otium, 's1', PROCTOR, true)).toEqual({ ok: true });
		expect(await Promise.all([0, 1, 2].map(state))).toEqual(['handed_in', 'handed_in', 'working']);
		const account = await accountFor(house.otium.db, (await findSession(house.otium.db, 's1'))!);
		expect(account.ledger).toMatchObject({ addsUp: true });
	});

	it('keeps an own window open past the session’s end, for that one alone', async () => {
		house = await buildHouse();
		const code = await openDoor(house);
		const { giveGrant } = await import('../grants');
		const own = { kind: 'own_window', opens: NINE, closes: NINE + 300 * MINUTE } as const;
		await giveGrant(house.otium, COORDINATOR, nanoid(), {
			candidateId: 'can1',
			scope: { kind: 'session', id: 's1' },
			body: own,
			reason: 'ferry',
			givenBy: 'ode',
			givenAt: NINE
		});
		await bringToWork(house, 1, code);
		await bringToWork(house, 0, code);
		await endSession(house.otium, 's1', PROCTOR);
		expect([await state(0), await state(1)]).toEqual(['carried_over', 'working']);
	});
});

describe('the logbook', () => {
	it('refuses to be changed, and finds out when it was all the same', async () => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		const { db } = house.otium;
		const before = await verifyLogbook(db);
		expect(before).toMatchObject({ broken: null });
		await expect(db('logbook').where({ seq: 2 }).update({ body: '{}' })).rejects.toThrow('append-only');
		await expect(db('logbook').where({ seq: 2 }).delete()).rejects.toThrow('append-only');
		await expect(db('answer').update({ value: 'x' })).resolves.toBe(0);
		await db.raw('DROP TRIGGER logbook_no_update');
		await db('logbook').where({ seq: 2 }).update({ body: '{"reason":"never happened"}' });
		expect((await verifyLogbook(db)).broken).toEqual({ seq: 2, why: 'its contents were changed after it was written' });
	});

	it('tells names and acts by any word, newest first, with wild cards taken as they are', async () => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		const found = await searchLogbook(house.otium.db, { text: 'family0 let_in' });
		expect(found.map((line) => [line.kind, line.candidate, line.who])).toEqual([
			['let_in', 'Given0 Family0 (DO-1001)', 'Rhys Dunmore']
		]);
		expect(await searchLogbook(house.otium.db, { text: '%' })).toEqual([]);
	});
});
