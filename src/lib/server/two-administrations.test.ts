import { nanoid } from 'nanoid';
import { afterEach, expect, it } from 'vitest';
import { asItSeems } from '$core/people';
import { MINUTE } from '$core/time';
import { verifyAnswers } from './answers';
import { giveGrant, withdrawGrant } from './grants';
import { applyImport, checkImport } from './people';
import { endSession } from './session';
import { act } from './sitting';
import {
	bringToWork,
	buildHouse,
	closeAtOnce,
	COORDINATOR,
	giveHere,
	openDoor,
	PROCTOR,
	type House
} from './testing/house';

let house: House;
afterEach(() => house.close());
const pass = (minutes: number) => (house.clock.at += minutes * MINUTE);
const rev = (seq: number, questionId = 'q1', value: boolean | null = true) => ({
	seq,
	questionId,
	value,
	marked: false,
	struck: [],
	inViewMs: 1_000
});

it('a standing grant can be given to somebody who sat in a closed administration', async () => {
	house = await buildHouse({});
	await bringToWork(house, 0, await openDoor(house));
	await act(house.otium, [
		{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'hand_in', receipt: 'x', reason: null } }
	]);
	pass(80);
	await endSession(house.otium, 's1', COORDINATOR);
	await closeAtOnce(house);
	const given = await giveGrant(house.otium, COORDINATOR, nanoid(), {
		candidateId: 'can0',
		scope: { kind: 'standing' },
		body: { kind: 'extra_time', factor: 1.25, minutes: 0 },
		reason: 'x',
		givenBy: 'ode',
		givenAt: house.clock.at
	});
	expect(given.id).toBeTruthy();
});

it('a paper grant reaches the paper also where it was sat in a closed administration', async () => {
	house = await buildHouse({});
	await closeAtOnce(house);
	const given = await giveGrant(house.otium, COORDINATOR, nanoid(), {
		candidateId: 'can0',
		scope: { kind: 'paper', id: 'numbers' },
		body: { kind: 'display', magnification: 2, contrast: false },
		reason: 'x',
		givenBy: 'ode',
		givenAt: house.clock.at
	});
	expect(given.id).toBeTruthy();
});

it('a standing grant that was given before a closing can be withdrawn after it', async () => {
	house = await buildHouse({});
	const { id } = await giveHere(
		house,
		{ kind: 'extra_time', factor: 1.25, minutes: 0 },
		{ scope: { kind: 'standing' } }
	);
	await closeAtOnce(house);
	expect(await withdrawGrant(house.otium, COORDINATOR, id)).toBe(true);
});

it('people come in again with changed needs, some of whom sat in a closed administration', async () => {
	house = await buildHouse({});
	await closeAtOnce(house);
	const file = new TextEncoder().encode(
		'number,given,family,group,factor\nDO-1001,Given0,Family0,Watch A,1.5\nDO-2001,Zoë,Ó Briain,Watch A,'
	);
	const wishes = asItSeems('quayside');
	const checked = await checkImport(house.otium, 'people.csv', file, wishes);
	if (!checked.ok) throw new Error('x');
	const done = await applyImport(house.otium, COORDINATOR, 'people.csv', file, wishes, checked.checked.seal).catch(
		(e: Error) => String(e.message).slice(-40)
	);
	expect(done).toMatchObject({ ok: true });
});

it('a late answer to a closed administration does not fail the answers of others that are saved with it', async () => {
	house = await buildHouse({ candidates: 2, closes: null });
	const db = house.otium.db;
	const code = await openDoor(house);
	const first = await bringToWork(house, 0, code);
	const second = await bringToWork(house, 1, code);
	// The first sat in another administration, which is closed by now.
	await db('administration').insert({ id: 'autumn', name: 'Autumn' });
	await db('sitting').where({ id: 'sit0' }).update({ administration_id: 'autumn' });
	await closeAtOnce(house, 'autumn');
	const done = await Promise.allSettled([
		house.otium.answers.save('sit0', first, [rev(1)]),
		house.otium.answers.save('sit1', second, [rev(1)])
	]);
	expect(done[1].status).toBe('fulfilled');
});

it('two answers to one question under one number: what was acknowledged last counts', async () => {
	house = await buildHouse({});
	const epoch = await bringToWork(house, 0, await openDoor(house));
	await house.otium.answers.save('sit0', epoch, [rev(5, 'q1', true)]);
	const saved = await house.otium.answers.save('sit0', epoch, [rev(5, 'q1', false)]);
	expect(saved).toMatchObject({ seqs: [5], kept: null });
	expect((await verifyAnswers(house.otium.db)).broken).toBeNull();
	const row = await house.otium.db('answer_standing').where({ sitting_id: 'sit0', question_id: 'q1' }).first('value');
	expect(JSON.parse(row.value).value).toBe(false);
});
