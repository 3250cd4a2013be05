import { nanoid } from 'nanoid';
import { afterEach, describe, expect, it } from 'vitest';
import { DEFAULT_RULES, type SessionRules } from '$core/session';
import type { CommandBody } from '$core/sitting';
import { MINUTE } from '$core/time';
import { giveGrant, type NewGrant } from '../grants';
import { drawSitting } from '../live';
import { endSession, startRoom } from '../session';
import { sweep } from '../sweep';
import {
	arriveAt,
	bringToWork,
	buildHouse,
	CANDIDATE,
	COORDINATOR,
	NINE,
	openDoor,
	planMakeUp,
	PROCTOR,
	giveHere,
	type House
} from '../testing/house';
import { act, begin, endBreak, loadSitting, startClock, takeBreak } from '.';

let house: House;
afterEach(() => house.close());

const one = async (i = 0) => (await loadSitting(house.otium.db, `sit${i}`, house.otium.now()))!;
const left = async (i = 0) => (await one(i)).reckoning.remaining! / MINUTE;
const command = async (body: CommandBody, by = PROCTOR, i = 0) =>
	(await act(house.otium, [{ id: nanoid(), sittingId: `sit${i}`, by, body }]))[0];
const give = (body: NewGrant['body'], change: Partial<NewGrant> = {}) => giveHere(house, body, change);
const answer = (epoch: number, seq: number, questionId = 'q1') =>
	house.otium.answers.save('sit0', epoch, [
		{ seq, questionId, value: true, marked: false, struck: [], inViewMs: 1_000 }
	]);
const pass = (minutes: number) => (house.clock.at += minutes * MINUTE);

/** Into the make-up's door, let in and begun, on another device. */
async function continueIn(sessionId: string, at: number, starts: 'room' | 'candidate' = 'candidate') {
	house.sessionId = sessionId;
	house.clock.at = at;
	await arriveAt(house, 0, await openDoor(house), 'other');
	await command({ kind: 'let_in' });
	if (starts === 'room') await startRoom(house.otium, sessionId, PROCTOR);
	return begin(house.otium, 'sit0', nanoid(), '');
}

describe('carried over into another session', () => {
	const eleven = Date.parse('2026-12-08T11:00:00Z');

	it('the time that was left is left, also where all start together', async () => {
		house = await buildHouse({ timing: { clockStarts: 'room', limitMinutes: 60, clockStops: 'hold' } });
		await arriveAt(house, 0, await openDoor(house));
		await startRoom(house.otium, 's1', PROCTOR);
		await begin(house.otium, 'sit0', nanoid(), '');
		pass(40);
		await endSession(house.otium, 's1', PROCTOR);
		const rules: SessionRules = {
			...DEFAULT_RULES,
			timing: { ...DEFAULT_RULES.timing, clockStarts: 'room', limitMinutes: 60 }
		};
		pass(20);
		const next = await planMakeUp(house, { time: '11:00', until: null, rules });
		expect((await continueIn(next, eleven, 'room')).ok).toBe(true);
		expect(await left()).toBe(20);
	});

	it('minutes given back go with the work, in the words on the screen and in the clock', async () => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		await give({ kind: 'credit', minutes: 10 });
		await give({ kind: 'extra_time', factor: 1, minutes: 5 });
		pass(20);
		const before = await left();
		await endSession(house.otium, 's1', PROCTOR);
		expect((await drawSitting(house.otium.db, 'sit0', house.clock.at)).time.remaining! / MINUTE).toBe(before);
		pass(40);
		const next = await planMakeUp(house, { time: '11:00', until: null });
		await continueIn(next, eleven);
		expect(await left()).toBe(before);
	});

	it('what was given to all elsewhere before they came is not theirs, and what is taken back here is taken back', async () => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		const { id } = await give({ kind: 'credit', minutes: 10 }, { candidateId: null });
		pass(20);
		await endSession(house.otium, 's1', PROCTOR);
		const before = await left();
		pass(40);
		const next = await planMakeUp(house, { time: '11:00', until: null, only: ['can1'] });
		house.clock.at = eleven;
		await giveGrant(house.otium, PROCTOR, nanoid(), {
			candidateId: null,
			scope: { kind: 'session', id: next },
			body: { kind: 'credit', minutes: 7 },
			reason: 'alarm',
			givenBy: 'dunmore',
			givenAt: house.otium.now()
		});
		pass(1);
		const { addToSession, findSession } = await import('../session');
		await addToSession(house.otium, COORDINATOR, (await findSession(house.otium.db, next))!, 'can0');
		expect((await one()).sitting.sessionId).toBe(next);
		expect(await left()).toBe(before);
		const { withdrawGrant } = await import('../grants');
		await withdrawGrant(house.otium, PROCTOR, id);
		expect(await left()).toBe(before - 10);
	});

	it('a hold that stopped the clock under the first rules stays given back under the next', async () => {
		house = await buildHouse({ timing: { clockStops: 'hold' } });
		await bringToWork(house, 0, await openDoor(house));
		pass(10);
		await command({ kind: 'hold', reason: 'Out of the room', stopsClock: true });
		pass(10);
		await command({ kind: 'resume' });
		const before = await left();
		await endSession(house.otium, 's1', PROCTOR);
		const rules: SessionRules = { ...DEFAULT_RULES, timing: { ...DEFAULT_RULES.timing, clockStops: 'never' } };
		const next = await planMakeUp(house, { time: '11:00', until: null, rules });
		await continueIn(next, eleven);
		expect(await left()).toBe(before);
	});
});

describe('time that runs out between two devices', () => {
	it('hands the work in, where the clock never stops', async () => {
		house = await buildHouse({ timing: { clockStops: 'never', limitMinutes: 60, graceMinutes: 1, atClose: 'finish' } });
		const epoch = await bringToWork(house, 0, await openDoor(house));
		await answer(epoch, 1);
		pass(55);
		await command({ kind: 'move_device' });
		pass(7);
		await sweep(house.otium);
		expect((await one()).sitting.state).toBe('time_up');
	});

	it('leaves it to be handed in by either, where the rules only stop', async () => {
		house = await buildHouse({
			timing: { clockStops: 'never', limitMinutes: 60, atTimeUp: 'stop', atClose: 'finish' }
		});
		const code = await openDoor(house);
		await bringToWork(house, 0, code);
		pass(55);
		await command({ kind: 'move_device' });
		pass(7);
		await arriveAt(house, 0, code, 'other');
		await command({ kind: 'let_in' });
		expect(await begin(house.otium, 'sit0', nanoid(), '')).toMatchObject({ refusal: { code: 'time_over' } });
		expect(await command({ kind: 'carry_over', reason: null })).toMatchObject({
			refusal: { code: 'over_not_carried' }
		});
		expect((await command({ kind: 'hand_in', receipt: 'R', reason: null }, CANDIDATE)).ok).toBe(true);
	});

	it('lets them go on where that is allowed, marked late', async () => {
		house = await buildHouse({ timing: { atTimeUp: 'flag', clockStops: 'hold', graceMinutes: 0, atClose: 'finish' } });
		const code = await openDoor(house);
		await bringToWork(house, 0, code);
		pass(65);
		await command({ kind: 'move_device' });
		await arriveAt(house, 0, code, 'other');
		await command({ kind: 'let_in' });
		expect((await begin(house.otium, 'sit0', nanoid(), '')).ok).toBe(true);
		await answer(2, 1);
		expect(await house.otium.db('answer_standing').where({ sitting_id: 'sit0' }).pluck('late')).toEqual([1]);
	});
});

describe('turned away after having begun', () => {
	it('keeps the place, and ends as carried over', async () => {
		house = await buildHouse();
		const code = await openDoor(house);
		await bringToWork(house, 0, code);
		pass(20);
		await command({ kind: 'move_device' });
		await arriveAt(house, 0, code, 'other');
		await command({ kind: 'turn_away', reason: 'Come back later' });
		expect((await one()).sitting).toMatchObject({ state: 'at_door', device: null });
		await endSession(house.otium, 's1', PROCTOR);
		expect((await one()).sitting.state).toBe('carried_over');
	});
});

describe('the opening', () => {
	it('is waited for, unless somebody who may run the room opens it early', async () => {
		house = await buildHouse({ rules: { admission: 'automatic' } });
		house.clock.at = NINE - 4 * MINUTE;
		await arriveAt(house, 0, await openDoor(house));
		expect((await one()).sitting.state).toBe('let_in');
		expect(await begin(house.otium, 'sit0', nanoid(), '')).toMatchObject({ refusal: { code: 'not_open_yet' } });
		expect((await drawSitting(house.otium.db, 'sit0', house.clock.at)).time.opens).toBe(NINE);
		const { openEarly } = await import('../session');
		expect(await openEarly(house.otium, 's1', PROCTOR)).toEqual({ ok: true });
		expect((await begin(house.otium, 'sit0', nanoid(), '')).ok).toBe(true);
		expect((await drawSitting(house.otium.db, 'sit0', house.clock.at)).time.opens).toBeLessThanOrEqual(house.clock.at);
	});

	it('of an own window is that window’s, also after the session was opened early', async () => {
		house = await buildHouse();
		house.clock.at = NINE - 4 * MINUTE;
		await give({ kind: 'own_window', opens: NINE + 10 * MINUTE, closes: NINE + 80 * MINUTE });
		const { openEarly } = await import('../session');
		const code = await openDoor(house);
		await openEarly(house.otium, 's1', PROCTOR);
		house.clock.at = NINE + 6 * MINUTE;
		await arriveAt(house, 0, code);
		await command({ kind: 'let_in' });
		expect(await begin(house.otium, 'sit0', nanoid(), '')).toMatchObject({ refusal: { code: 'not_open_yet' } });
	});
});

describe('a paper that is slow to come', () => {
	it('costs no working time, for a minute at the most, and the logbook tells when the clock started', async () => {
		house = await buildHouse();
		await arriveAt(house, 0, await openDoor(house));
		await command({ kind: 'let_in' });
		await begin(house.otium, 'sit0', nanoid(), '');
		house.clock.at += 20_000;
		expect(await left()).toBe(60);
		await startClock(house.otium, 'sit0');
		await startClock(house.otium, 'sit0');
		pass(10);
		expect(await left()).toBe(50);
		const told = await house.otium.db('logbook').where({ kind: 'clock_started' });
		expect(told).toHaveLength(1);
		expect(await house.otium.db('sitting').where({ id: 'sit0' }).first('clock_waits')).toEqual({ clock_waits: 0 });
	});
});

describe('on hold', () => {
	it('an answer on its way counts, later ones are kept without counting, and what a device brings that was away counts', async () => {
		house = await buildHouse({ candidates: 2 });
		const code = await openDoor(house);
		const epoch = await bringToWork(house, 0, code);
		await bringToWork(house, 1, code);
		// The lines that arriving opened are written a moment later.
		await new Promise((next) => setTimeout(next, 100));
		await command({ kind: 'lose_line', since: house.otium.now() }, { role: 'system', id: 'line' }, 1);
		for (const i of [0, 1]) await command({ kind: 'hold', reason: 'To be spoken to', stopsClock: true }, PROCTOR, i);
		house.clock.at += 3_000;
		expect((await answer(epoch, 1)).kept).toBeNull();
		pass(30);
		expect((await answer(epoch, 2, 'q2')).kept).toBe('on_hold');
		const away = { seq: 1, questionId: 'q1', value: true, marked: false, struck: [], inViewMs: 1 };
		expect((await house.otium.answers.save('sit1', 1, [away])).kept).toBeNull();
		await command({ kind: 'regain_line' }, { role: 'system', id: 'line' }, 1);
		pass(1);
		expect((await house.otium.answers.save('sit1', 1, [{ ...away, seq: 2 }])).kept).toBe('on_hold');
	});

	it('time is up at a close that cuts, also during a hold', async () => {
		house = await buildHouse({
			timing: { atClose: 'cut', clockStops: 'hold', graceMinutes: 0 },
			closes: NINE + 75 * MINUTE
		});
		await bringToWork(house, 0, await openDoor(house));
		pass(50);
		await command({ kind: 'hold', reason: 'Out of the room', stopsClock: true });
		expect(await house.otium.db('sitting').where({ id: 'sit0' }).first('due_at')).toEqual({
			due_at: NINE + 75 * MINUTE
		});
		house.clock.at = NINE + 76 * MINUTE;
		await sweep(house.otium);
		expect((await one()).sitting.state).toBe('time_up');
	});
});

describe('a break', () => {
	const withBreaks = async () => {
		house = await buildHouse();
		await give({ kind: 'breaks', count: 2, minutes: 5 }, { scope: { kind: 'standing' } });
		return openDoor(house);
	};

	it('is taken from work, not before it', async () => {
		const code = await withBreaks();
		await arriveAt(house, 0, code);
		expect(await takeBreak(house.otium, 'sit0')).toMatchObject({ refusal: { code: 'no_break_now' } });
		expect((await one()).sitting.state).toBe('at_door');
	});

	it('gives way to a proctor’s hold, which outlives it', async () => {
		const code = await withBreaks();
		await bringToWork(house, 0, code);
		await takeBreak(house.otium, 'sit0');
		expect((await command({ kind: 'hold', reason: 'To be spoken to', stopsClock: true })).ok).toBe(true);
		expect(await endBreak(house.otium, 'sit0')).toMatchObject({ ok: false });
		pass(6);
		await sweep(house.otium);
		expect((await one()).sitting.state).toBe('on_hold');
		await command({ kind: 'resume' });
		expect((await one()).sitting.state).toBe('working');
	});
});

describe('handed in by mistake, after the session has ended', () => {
	it('goes on in another session of the paper, with a reason, and with a grant on a later day', async () => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		pass(30);
		await command({ kind: 'hand_in', receipt: 'R', reason: null }, CANDIDATE);
		await endSession(house.otium, 's1', PROCTOR);
		expect((await command({ kind: 'continue_later', reason: 'By mistake' })).ok).toBe(false);
		expect((await command({ kind: 'continue_later', reason: 'By mistake' }, COORDINATOR)).ok).toBe(true);
		const next = await planMakeUp(house, { time: '11:00', until: null });
		expect((await one()).sitting).toMatchObject({ state: 'carried_over', sessionId: next });
		await continueIn(next, Date.parse('2026-12-08T11:00:00Z'));
		expect(await left()).toBe(30);
	});
});

describe('set aside to sit again from the start', () => {
	it('is owed another attempt, which counts alone; the first is kept', async () => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		await command({ kind: 'set_aside', reason: 'Spoilt' }, COORDINATOR);
		await endSession(house.otium, 's1', PROCTOR);
		await expect(planMakeUp(house, { time: '11:00', until: null, only: ['can0'] })).rejects.toThrow();
		await command({ kind: 'allow_fresh', reason: 'Spoilt by the alarm' }, COORDINATOR);
		const next = await planMakeUp(house, { time: '11:00', until: null, only: ['can0'] });
		const rows = await house.otium.db('sitting').where({ candidate_id: 'can0' }).orderBy('attempt');
		expect(rows.map((row) => [row.session_id, row.attempt, row.state])).toEqual([
			['s1', 1, 'set_aside'],
			[next, 2, 'expected']
		]);
	});
});
