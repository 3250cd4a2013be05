import { nanoid } from 'nanoid';
import { afterEach, expect, it } from 'vitest';
import type { Actor, CommandBody } from '$core/sitting';
import { MINUTE } from '$core/time';
import { reopenFor } from './grants';
import { arrive, knock } from './identity';
import { endSession, findSession, moveWindow, openEarly, reseat, saveSession, sitAgain, startRoom } from './session';
import { act, begin, loadSitting } from './sitting';
import { sweep } from './sweep';
import {
	arriveAt,
	bringToWork,
	buildHouse,
	COORDINATOR,
	makeUpInput,
	NINE,
	openDoor,
	PROCTOR,
	type House
} from './testing/house';
import { somebody } from './testing/staff';

let house: House;
afterEach(() => house.close());
const one = async (i = 0) => (await loadSitting(house.otium.db, `sit${i}`, house.otium.now()))!;
const left = async (i = 0) => (await one(i)).reckoning.remaining! / MINUTE;
const command = async (body: CommandBody, by: Actor = PROCTOR, i = 0) =>
	(await act(house.otium, [{ id: nanoid(), sittingId: `sit${i}`, by, body }]))[0];
const pass = (minutes: number) => (house.clock.at += minutes * MINUTE);
const SYSTEM = { role: 'system' as const, id: 'line' };
const ODE = somebody('ode', 'coordinator', null);

it('undo of letting in after the line was lost: the line is still down', async () => {
	house = await buildHouse({});
	await arriveAt(house, 0, await openDoor(house));
	await command({ kind: 'let_in' });
	house.clock.at += 10_000;
	await command({ kind: 'lose_line', since: house.clock.at }, SYSTEM);
	expect((await one()).sitting.line?.up).toBe(false);
	house.clock.at += 10_000;
	expect((await command({ kind: 'take_back' })).ok).toBe(true);
	expect((await one()).sitting.line?.up).toBe(false);
});

it('undo of a carry-over of somebody whose device is gone meanwhile: the line is not told as up', async () => {
	house = await buildHouse({});
	await bringToWork(house, 0, await openDoor(house));
	pass(5);
	await command({ kind: 'carry_over', reason: null });
	// nobody hears the device for a minute and a half: presence forgets it
	for (let i = 0; i < 9; i++) {
		house.clock.at += 10_000;
		await house.otium.presence.sweep();
	}
	expect((await command({ kind: 'take_back' })).ok).toBe(true);
	for (let i = 0; i < 60; i++) {
		house.clock.at += 10_000;
		await house.otium.presence.sweep();
	}
	// ten minutes of silence
	expect((await one()).sitting.line?.up).toBe(false);
});

it('reopened without a device: the candidate can come in', async () => {
	house = await buildHouse({ timing: { limitMinutes: 60, clockStops: 'never', graceMinutes: 1, atClose: 'finish' } });
	const code = await openDoor(house);
	await bringToWork(house, 0, code);
	pass(55);
	await command({ kind: 'move_device' });
	pass(7);
	await sweep(house.otium);
	expect((await one()).sitting.state).toBe('time_up');
	const done = await reopenFor(house.otium, ODE, COORDINATOR, {
		id: nanoid(),
		sittingId: 'sit0',
		reason: 'lost',
		minutes: 10,
		window: null,
		anotherDay: false
	});
	expect(done.words).toContain('At work');
	const back = await arriveAt(house, 0, code, 'another device');
	expect(back.ok ? 'in' : back.refusal.code).toBe('in');
});

it('work typed in from paper, then reopened: the candidate can come in', async () => {
	house = await buildHouse({ timing: { limitMinutes: 60, atClose: 'finish' }, closes: NINE + 180 * MINUTE });
	const code = await openDoor(house);
	pass(5);
	await command({ kind: 'mark_absent' });
	await command({ kind: 'take_from_paper', receipt: 'x', reason: 'power' });
	expect((await one()).sitting.state).toBe('handed_in');
	const done = await command({ kind: 'reopen', reason: 'wrong person' }, COORDINATOR);
	expect(done.ok).toBe(true);
	const back = await arriveAt(house, 0, code, 'another device');
	expect(back.ok ? 'in' : back.refusal.code).toBe('in');
});

it('restored after its session has ended: the time that was left is not used up without the candidate', async () => {
	house = await buildHouse({ timing: { limitMinutes: 60, atClose: 'finish' } });
	await bringToWork(house, 0, await openDoor(house));
	pass(20);
	const before = await left();
	await command({ kind: 'set_aside', reason: 'wrong paper' }, COORDINATOR);
	pass(50);
	await endSession(house.otium, 's1', COORDINATOR);
	pass(24 * 60);
	expect((await command({ kind: 'restore' }, COORDINATOR)).ok).toBe(true);
	pass(45);
	await sweep(house.otium);
	expect((await one()).sitting.state).not.toBe('time_up');
	expect(await left()).toBe(before);
});

it('a reopening whose answer was lost and is asked again is answered as the first time', async () => {
	house = await buildHouse({});
	await bringToWork(house, 0, await openDoor(house));
	pass(5);
	await command({ kind: 'hand_in', receipt: 'x', reason: null }, { role: 'candidate', id: 'can0' });
	const asked = { id: 'asked-once-1', sittingId: 'sit0', reason: 'lost', minutes: 10, window: null, anotherDay: false };
	const first = await reopenFor(house.otium, ODE, COORDINATOR, asked);
	const second = await reopenFor(house.otium, ODE, COORDINATOR, asked).catch((e) => ({
		words: String(e.problem?.message ?? e)
	}));
	expect(second.words).toBe(first.words);
});

it('the window is moved after the room was started by mistake and nobody had begun: nobody loses time', async () => {
	house = await buildHouse({
		timing: { clockStarts: 'room', limitMinutes: 60, atClose: 'finish' },
		closes: NINE + 90 * MINUTE
	});
	house.clock.at = NINE - 10 * MINUTE;
	const code = await openDoor(house);
	await startRoom(house.otium, 's1', PROCTOR);
	const s = (await findSession(house.otium.db, 's1'))!;
	const next = { opens: NINE + 120 * MINUTE, closes: NINE + 210 * MINUTE };
	const moved = await moveWindow(house.otium, COORDINATOR, 's1', next, { reason: 'fire alarm', revision: s.revision });
	expect(moved.ok ? 'moved' : moved.message).toBe('moved');
	house.clock.at = next.opens;
	const arrived = await arriveAt(house, 0, code);
	expect(arrived.ok ? 'in' : arrived.refusal.code).toBe('in');
	await command({ kind: 'let_in' });
	// The room waits to be started again, at its new time.
	await startRoom(house.otium, 's1', PROCTOR);
	const begun = await begin(house.otium, 'sit0', nanoid(), '');
	expect(begun.ok ? 'begun' : begun.refusal.code).toBe('begun');
	expect(await left()).toBe(60);
});

it('the window moved later after last entry: whoever does not come is told once more', async () => {
	house = await buildHouse({ timing: { lastEntryMinutes: 15, atClose: 'finish' } });
	pass(20);
	await sweep(house.otium);
	const s = (await findSession(house.otium.db, 's1'))!;
	const moved = await moveWindow(
		house.otium,
		COORDINATOR,
		's1',
		{ opens: NINE + 60 * MINUTE, closes: NINE + 150 * MINUTE },
		{ reason: 'x', revision: s.revision }
	);
	expect(moved.ok).toBe(true);
	house.clock.at = NINE + 80 * MINUTE;
	await sweep(house.otium);
	expect(await house.otium.db('logbook').where({ kind: 'entry_closed' })).toHaveLength(2);
});

it('the window moved later after it was opened early: nobody begins before the new opening', async () => {
	house = await buildHouse({});
	house.clock.at = NINE - 10 * MINUTE;
	const code = await openDoor(house);
	expect(await openEarly(house.otium, 's1', PROCTOR)).toMatchObject({ ok: true });
	const s = (await findSession(house.otium.db, 's1'))!;
	expect(
		await moveWindow(
			house.otium,
			COORDINATOR,
			's1',
			{ opens: NINE + 60 * MINUTE, closes: NINE + 150 * MINUTE },
			{ reason: 'fire', revision: s.revision }
		)
	).toMatchObject({ ok: true });
	house.clock.at = NINE + 50 * MINUTE;
	const back = await arriveAt(house, 0, code);
	expect(back.ok).toBe(true);
	await command({ kind: 'let_in' });
	const begun = await begin(house.otium, 'sit0', nanoid(), '');
	expect(begun.ok ? 'begun' : begun.refusal.code).toBe('not_open_yet');
});

it('minutes given back to reopen are all there, whatever the minutes to finish up were', async () => {
	house = await buildHouse({
		timing: { limitMinutes: 60, graceMinutes: 5, atClose: 'finish', clockStops: 'never' },
		closes: NINE + 180 * MINUTE
	});
	await bringToWork(house, 0, await openDoor(house));
	for (let i = 0; i < 70; i++) {
		pass(1);
		await sweep(house.otium);
	}
	expect((await one()).sitting.state).toBe('time_up');
	await reopenFor(house.otium, ODE, COORDINATOR, {
		id: nanoid(),
		sittingId: 'sit0',
		reason: 'lost',
		minutes: 10,
		window: null,
		anotherDay: false
	});
	await begin(house.otium, 'sit0', nanoid(), '');
	expect(await left()).toBe(10);
});

it('a device that was freed and stays silent leaves no line behind', async () => {
	house = await buildHouse({});
	await bringToWork(house, 0, await openDoor(house));
	await command({ kind: 'move_device' });
	for (let i = 0; i < 8; i++) {
		house.clock.at += 10_000;
		await house.otium.presence.sweep();
	}
	expect((await one()).sitting.line).toBeNull();
});

it('an outage under the default rules: whoever the outage took the end from is not ended before anybody can give minutes', async () => {
	house = await buildHouse({
		timing: { limitMinutes: 60, graceMinutes: 0, atClose: 'finish' },
		closes: NINE + 180 * MINUTE
	});
	await bringToWork(house, 0, await openDoor(house));
	pass(50);
	await house.otium.presence.noteAlive();
	house.clock.at += 30 * MINUTE;
	await house.restart();
	await sweep(house.otium);
	expect((await one()).sitting.state).toBe('working');
});

it('a further attempt on a browser that cannot sign is still told as such', async () => {
	house = await buildHouse({
		rules: { attempts: { most: 2, waitMinutes: 0, counts: 'best', startsFromLast: false } as never }
	});
	const db = house.otium.db;
	const code = await openDoor(house);
	const met = await knock(house.otium, {
		code,
		number: house.people[0].number,
		family: house.people[0].family,
		address: '127.0.0.1'
	});
	if (!met.ok) throw new Error('no');
	await arrive(house.otium, {
		note: met.person.note,
		commandId: nanoid(),
		deviceId: 'd',
		deviceName: 'Laptop',
		address: '127.0.0.1',
		publicKey: null
	});
	expect((await one()).sitting.device?.unsigned).toBe(true);
	await command({ kind: 'let_in' });
	await begin(house.otium, 'sit0', nanoid(), '');
	await command({ kind: 'hand_in', receipt: 'x', reason: null }, { role: 'candidate', id: 'can0' });
	const again = await sitAgain(house.otium, 'sit0', { commandId: nanoid(), deviceId: 'd', deviceName: 'Laptop' });
	expect(again.ok ? 'ok' : again.refusal.message).toBe('ok');
	const next = (await loadSitting(db, (again as { sittingId: string }).sittingId, house.clock.at))!;
	expect(next.sitting.device?.unsigned).toBe(true);
});

it('a seat that was chosen by hand outlives an edit of the session', async () => {
	house = await buildHouse({});
	const db = house.otium.db;
	await db('session')
		.where({ id: 's1' })
		.update({ opens: NINE + 24 * 3600_000, closes: NINE + 25.25 * 3600_000 });
	const seats = async () =>
		Object.fromEntries(
			(await db('roster').where({ session_id: 's1' })).map((r: { sitting_id: string; seat: string }) => [
				r.sitting_id,
				r.seat
			])
		);
	await reseat(house.otium, COORDINATOR, (await findSession(db, 's1'))!, 'sit0', 'E5');
	expect((await seats()).sit0).toBe('E5');
	const session = (await findSession(db, 's1'))!;
	const input = makeUpInput({ kind: 'live', date: '2026-12-09', time: '09:00', until: '10:30' } as never);
	const saved = await saveSession(house.otium, COORDINATOR, 'winter', input, { id: 's1', revision: session.revision });
	expect(saved.ok ? 'saved' : saved.message).toBe('saved');
	expect((await seats()).sit0).toBe('E5');
});
