import { nanoid } from 'nanoid';
import { afterEach, describe, expect, it } from 'vitest';
import type { SessionRules } from '$core/session';
import { DEFAULT_RULES } from '$core/session';
import { MINUTE } from '$core/time';
import { drawSitting } from '$lib/server/live';
import { callTime, findSession, inputOf, sitAgain, startRoom } from '$lib/server/session';
import { sweep } from '$lib/server/sweep';
import {
	CANDIDATE,
	bringToWork,
	buildHouse,
	NINE,
	openDoor,
	planMakeUp,
	PROCTOR,
	type House
} from '$lib/server/testing/house';
import { call } from '$lib/server/testing/call';
import { deviceByToken } from '$lib/server/identity';
import { GET as paper } from './paper/+server';
import {
	act,
	begin,
	endBreak,
	endDueBreaks,
	loadSitting,
	showQuestions,
	startClock,
	takeBreak
} from '$lib/server/sitting';

let house: House;
afterEach(() => house.close());
const one = async (id = 'sit0') => (await loadSitting(house.otium.db, id, house.clock.at))!;
const state = async (id = 'sit0') => (await one(id)).sitting.state;
const at = (minutes: number) => (house.clock.at = NINE + minutes * MINUTE);
const grant = (i: number, body: object) =>
	house.otium.db('grant_given').insert({
		id: `grant${i}`,
		candidate_id: `can${i}`,
		scope_kind: 'standing',
		kind: 'extra_time',
		body: JSON.stringify({ kind: 'extra_time', ...body }),
		reason: 'profile',
		given_by: 'ode',
		given_at: NINE
	});

describe('a paper that its proctor ends', () => {
	it('ends for all at once; whoever has more goes on for as much longer; twice is refused', async () => {
		house = await buildHouse({
			timing: { endedBy: 'proctor', clockStarts: 'room', graceMinutes: 2, lastEntryMinutes: null }
		});
		await grant(1, { factor: 1.5, minutes: 0 });
		const code = await openDoor(house);
		expect((await callTime(house.otium, 's1', PROCTOR)).ok).toBe(false);
		await startRoom(house.otium, 's1', PROCTOR);
		for (const i of [0, 1]) await bringToWork(house, i, code);
		at(40);
		expect((await drawSitting(house.otium.db, 'sit0', house.clock.at)).time).toMatchObject({
			isEndedByHand: true,
			deadline: null,
			remaining: null
		});
		expect((await callTime(house.otium, 's1', PROCTOR)).ok).toBe(true);
		expect((await callTime(house.otium, 's1', PROCTOR)).ok).toBe(false);
		expect((await one()).reckoning.deadline).toBe(NINE + 40 * MINUTE);
		at(41);
		await sweep(house.otium);
		expect(await state()).toBe('working');
		at(42.1);
		await sweep(house.otium);
		expect([await state('sit0'), await state('sit1')]).toEqual(['time_up', 'working']);
		at(62.1);
		await sweep(house.otium);
		expect(await state('sit1')).toBe('time_up');
	});
});

describe('pauses of one’s own', () => {
	const rules: Partial<SessionRules> = { pauses: { most: 2, minutes: 5, stopsClock: false } };
	it('are as many and as long as the rules say, cost what they say, and end by themselves', async () => {
		house = await buildHouse({ rules });
		await bringToWork(house, 0, await openDoor(house));
		at(10);
		expect(await takeBreak(house.otium, 'sit0')).toEqual({ ok: true });
		expect((await one()).reckoning.standing).toBe(false);
		at(16);
		await endDueBreaks(house.otium);
		expect(await state()).toBe('working');
		expect((await one()).reckoning.remaining! / MINUTE).toBeCloseTo(44, 1);
		expect(await takeBreak(house.otium, 'sit0')).toEqual({ ok: true });
		expect(await endBreak(house.otium, 'sit0')).toEqual({ ok: true });
		expect(await takeBreak(house.otium, 'sit0')).toMatchObject({ ok: false, refusal: { code: 'no_break_left' } });
	});

	it('come after what was granted, which stops the clock', async () => {
		house = await buildHouse({ rules });
		await house.otium.db('grant_given').insert({
			id: 'b',
			candidate_id: 'can0',
			scope_kind: 'standing',
			kind: 'breaks',
			body: JSON.stringify({ kind: 'breaks', count: 1, minutes: 10 }),
			reason: 'profile',
			given_by: 'ode',
			given_at: NINE
		});
		await bringToWork(house, 0, await openDoor(house));
		const breaks = async () => (await drawSitting(house.otium.db, 'sit0', house.clock.at)).breaks;
		expect(await breaks()).toMatchObject({ left: 3, minutes: 10, stopsClock: true });
		await takeBreak(house.otium, 'sit0');
		expect((await one()).reckoning.standing).toBe(true);
		await endBreak(house.otium, 'sit0');
		expect(await breaks()).toMatchObject({ left: 2, minutes: 5, stopsClock: false });
	});
});

describe('coming back after leaving the paper', () => {
	async function atWork(comingBack: SessionRules['comingBack']) {
		house = await buildHouse({ rules: { comingBack } });
		const epoch = await bringToWork(house, 0, await openDoor(house));
		const { device } = (await one()).sitting;
		expect(device!.epoch).toBe(epoch);
		const row = await house.otium.db('device').where({ sitting_id: 'sit0' }).first();
		const known = {
			...(await deviceByToken(house.otium.db, row.token_hash, house.clock.at)),
			sittingId: 'sit0',
			epoch
		};
		return (view: string) =>
			call(paper, { otium: house.otium, device: known as never, method: 'GET', query: `?view=${view}` });
	}

	it('needs nothing where the rules ask for nothing', async () => {
		const open = await atWork('free');
		for (const view of ['a', 'b', 'c']) expect((await open(view)).status).toBe(200);
	});

	it('needs the proctor’s release: the same page may ask again, another one waits', async () => {
		const open = await atWork('released');
		for (const view of ['a', 'a']) expect((await open(view)).status).toBe(200);
		expect((await open('b')).body).toMatchObject({ code: 'came_back' });
		expect(await state()).toBe('on_hold');
		expect((await open('b')).status).toBe(409);
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'resume' } }]);
		expect((await open('b')).status).toBe(200);
		expect((await open('b')).status).toBe(200);
		expect((await open('c')).body).toMatchObject({ code: 'came_back' });
	});

	it('is not possible: the work is handed in, once', async () => {
		const open = await atWork('never');
		expect((await open('a')).status).toBe(200);
		expect((await open('b')).status).toBe(409);
		expect(await state()).toBe('handed_in');
		expect((await one()).sitting.ended).toMatchObject({ by: 'system' });
	});
});

describe('a further attempt that begins from the last', () => {
	it('has its form, and its answers until others are given', async () => {
		house = await buildHouse({
			rules: { attempts: { ...DEFAULT_RULES.attempts, most: 3, laterWaitMinutes: 30, startsFromLast: true } },
			closes: null,
			timing: { lastEntryMinutes: null }
		});
		const { otium } = house;
		const epoch = await bringToWork(house, 0, await openDoor(house));
		const answer = (sittingId: string, on: number, seq: number, questionId: string, value: boolean) =>
			otium.answers.save(sittingId, on, [
				{ seq, questionId, value, marked: false, struck: [], inViewMs: 9_000 }
			] as never);
		await answer('sit0', epoch, 1, 'q1', true);
		await answer('sit0', epoch, 2, 'q2', false);
		await act(otium, [
			{ id: nanoid(), sittingId: 'sit0', by: CANDIDATE, body: { kind: 'hand_in', receipt: 'R', reason: null } }
		]);
		at(5);
		const again = await sitAgain(otium, 'sit0', { commandId: nanoid(), deviceId: 'd', deviceName: 'Laptop' });
		if (!again.ok) throw new Error(again.refusal.message);
		await act(otium, [{ id: nanoid(), sittingId: again.sittingId, by: PROCTOR, body: { kind: 'let_in' } }]);
		for (const id of ['begin-once', 'begin-once']) await begin(otium, again.sittingId, id, '');
		await startClock(otium, again.sittingId);
		const standing = async (id: string) =>
			(await otium.db('answer_standing').where({ sitting_id: id }).orderBy('question_id')).map((row) => [
				row.question_id,
				JSON.parse(row.value).value
			]);
		expect(await standing(again.sittingId)).toEqual([
			['q1', true],
			['q2', false]
		]);
		const forms = await otium.db('form').whereIn('sitting_id', ['sit0', again.sittingId]).pluck('form');
		expect(forms[0]).toBe(forms[1]);
		const { sitting } = (await loadSitting(otium.db, again.sittingId, house.clock.at))!;
		await answer(again.sittingId, sitting.device!.epoch, 1, 'q2', true);
		expect(await standing(again.sittingId)).toEqual([
			['q1', true],
			['q2', true]
		]);
		expect(await standing('sit0')).toContainEqual(['q2', false]);
		// The third waits longer than the second did.
		await act(otium, [
			{
				id: nanoid(),
				sittingId: again.sittingId,
				by: CANDIDATE,
				body: { kind: 'hand_in', receipt: 'R2', reason: null }
			}
		]);
		expect((await drawSitting(otium.db, again.sittingId, house.clock.at)).again).toMatchObject({
			attempt: 3,
			from: NINE + 35 * MINUTE
		});
	});
});

describe('a time for each question', () => {
	const timing = { questionSeconds: 60, limitMinutes: 7, clockStops: 'hold_or_lost' as const };
	const rules: Partial<SessionRules> = {
		movement: { shown: 'one', perPage: 5, goingBack: false, answerToGoOn: false, answerAll: false }
	};
	const seconds = (count: number) => (house.clock.at = NINE + count * 1_000);
	/** What the device is sent now, and answers to its questions. */
	async function onScreen(i = 0) {
		const { questions, question, ids } = await showQuestions(house.otium, await one(`sit${i}`));
		const id = ids.fromDevice({ questionId: questions[0].id, value: null, struck: [] })!.questionId;
		return { id, time: question };
	}
	let seq = 0;
	const answer = (questionId: string, value: boolean | null, epoch = 1) =>
		house.otium.answers.save('sit0', epoch, [
			{ seq: ++seq, questionId, value, marked: false, struck: [], inViewMs: 0 }
		]);
	const form = async () => JSON.parse((await house.otium.db('form').first('form')).form).questions as { id: string }[];

	it('runs from when each was sent, ends answers to it a moment later, and starts anew with the next', async () => {
		house = await buildHouse({ timing, rules });
		const epoch = await bringToWork(house, 0, await openDoor(house));
		const questions = await form();
		const first = await onScreen();
		expect(first).toMatchObject({ id: questions[0].id, time: { place: 0, ends: NINE + 60_000 } });
		seconds(30);
		// Asked for again, it was shown when it was first.
		expect((await onScreen()).time).toMatchObject({ ends: NINE + 60_000, remaining: 30_000 });
		expect((await drawSitting(house.otium.db, 'sit0', house.clock.at)).time.question).toMatchObject({ place: 0 });
		seconds(64);
		expect((await answer(questions[0].id, true, epoch)).kept).toBeNull();
		seconds(66);
		expect((await answer(questions[0].id, false, epoch)).kept).toBe('question_over');
		// The place that was reached is told, and the next question's time begins when it is sent.
		expect((await answer(questions[1].id, null, epoch)).kept).toBeNull();
		seconds(100);
		expect(await onScreen()).toMatchObject({ id: questions[1].id, time: { place: 1, ends: NINE + 160_000 } });
		seconds(150);
		expect((await answer(questions[1].id, true, epoch)).kept).toBeNull();
		const standing = await house.otium.db('answer_standing').where({ question_id: questions[0].id }).first('value');
		expect(JSON.parse(standing.value).value).toBe(true);
	});

	it('is longer for whoever has a factor, and waits while they are held', async () => {
		house = await buildHouse({ timing, rules });
		await grant(0, { factor: 1.5, minutes: 0 });
		const epoch = await bringToWork(house, 0, await openDoor(house));
		const questions = await form();
		// 7 min × 1.5 = 11 min: 60 s × 11 / 7.
		expect((await onScreen()).time?.ends).toBe(NINE + Math.ceil((60 * 11) / 7) * 1_000);
		seconds(90);
		await act(house.otium, [
			{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'hold', reason: 'Fire drill', stopsClock: true } }
		]);
		seconds(390);
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'resume' } }]);
		expect((await one()).question).toMatchObject({ remaining: 5_000 });
		expect((await answer(questions[0].id, true, epoch)).kept).toBeNull();
	});

	it('is entered without a limit beside it, which follows from the paper; both are refused', async () => {
		house = await buildHouse();
		await openDoor(house);
		const absent = { kind: 'mark_absent' as const };
		await act(
			house.otium,
			house.people.map(({ sittingId }) => ({ id: nanoid(), sittingId, by: PROCTOR, body: absent }))
		);
		const rulesOf = (change: Partial<SessionRules['timing']>) => ({
			...DEFAULT_RULES,
			...rules,
			tools: { ...DEFAULT_RULES.tools, marking: false },
			timing: { ...DEFAULT_RULES.timing, ...change }
		});
		await expect(planMakeUp(house, { rules: rulesOf({ questionSeconds: 60 }) })).rejects.toThrow(/only one of them/);
		const id = await planMakeUp(house, { rules: rulesOf({ questionSeconds: 60, limitMinutes: null }) });
		const session = (await findSession(house.otium.db, id))!;
		expect(session.rules.timing).toMatchObject({ questionSeconds: 60, limitMinutes: 7 });
		expect((await inputOf(house.otium.db, session)).rules.timing).toMatchObject({ limitMinutes: null });
	});
});
