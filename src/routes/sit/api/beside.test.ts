import { nanoid } from 'nanoid';
import sharp from 'sharp';
import { afterEach, describe, expect, it } from 'vitest';
import type { Review } from '$core/review';
import { DEFAULT_RULES, type SessionRules } from '$core/session';
import { MINUTE } from '$core/time';
import { giveGrant } from '$lib/server/grants';
import { drawRoom, drawSitting } from '$lib/server/live';
import { deleteOldSnapshots, snapshotsOf } from '$lib/server/pictures';
import { endSession } from '$lib/server/session';
import { act, begin, endDueBreaks, loadSitting } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import {
	arriveAt,
	bringToWork,
	buildHouse,
	COORDINATOR,
	NINE,
	openDoor,
	PROCTOR,
	type House
} from '$lib/server/testing/house';
import { POST as beat } from './beat/+server';
import { POST as pause } from './break/+server';
import { POST as ready } from './ready/+server';
import { POST as hand } from './hand/+server';
import { POST as lapses } from './lapses/+server';
import { POST as seen } from './messages/+server';
import { GET as review } from './review/+server';
import { POST as snapshot } from './snapshot/+server';

let house: House;
afterEach(() => house.close());
const open = async (rules: Partial<SessionRules> = {}, timing: Partial<SessionRules['timing']> = {}) => {
	house = await buildHouse({ rules, timing });
	return openDoor(house);
};
const from = (handler: unknown, body: unknown = {}, i = 0) =>
	call(handler as never, { otium: house.otium, body, device: { sittingId: `sit${i}`, epoch: 1 } });
const sitting = async (i = 0) => (await loadSitting(house.otium.db, `sit${i}`, house.otium.now()))!;
const picture = () => drawSitting(house.otium.db, 'sit0', house.otium.now());

describe('breaks that were granted', () => {
	const grant = (count: number, minutes: number) =>
		giveGrant(house.otium, COORDINATOR, nanoid(), {
			candidateId: 'can0',
			scope: { kind: 'standing' },
			body: { kind: 'breaks', count, minutes },
			reason: 'agreed',
			givenBy: 'ode',
			givenAt: NINE
		});

	it.each(['never', 'hold'] as const)(
		'stop the clock (clock stops: %s), end by themselves, and are counted',
		async (clockStops) => {
			const code = await open({}, { clockStops, atClose: 'finish' });
			await grant(2, 10);
			await bringToWork(house, 0, code);
			const before = (await sitting()).reckoning.deadline!;
			expect((await picture()).breaks).toEqual({ left: 2, minutes: 10, stopsClock: true, until: null });

			expect((await from(pause, { on: true })).status).toBe(200);
			expect((await picture()).breaks).toEqual({
				left: 1,
				minutes: 10,
				stopsClock: true,
				until: house.otium.now() + 10 * MINUTE
			});
			house.clock.at += 9 * MINUTE;
			await endDueBreaks(house.otium);
			expect((await sitting()).sitting.state).toBe('on_hold');
			house.clock.at += MINUTE;
			await endDueBreaks(house.otium);
			expect((await sitting()).sitting.state).toBe('working');
			expect((await sitting()).reckoning.deadline).toBe(before + 10 * MINUTE);

			await from(pause, { on: true });
			house.clock.at += 3 * MINUTE;
			expect((await from(pause, { on: false })).status).toBe(200);
			expect((await sitting()).reckoning.deadline).toBe(before + 13 * MINUTE);
			const third = await from(pause, { on: true });
			expect([third.status, third.body.code]).toEqual([409, 'no_break_left']);
		}
	);

	it('nobody else takes one, and nobody ends a proctor’s hold so', async () => {
		const code = await open();
		await bringToWork(house, 0, code);
		expect((await from(pause, { on: true })).body.code).toBe('no_break_left');
		await grant(1, 5);
		await act(house.otium, [
			{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'hold', reason: 'to speak', stopsClock: true } }
		]);
		expect((await from(pause, { on: false })).status).toBe(409);
		expect((await sitting()).sitting.state).toBe('on_hold');
		expect((await picture()).breaks).toMatchObject({ left: 1, until: null });
	});
});

describe('looking the device over at the door', () => {
	const results = ['screen', 'sound', 'storage', 'line', 'clock'].map((key) => ({ key, ok: true, says: 'fine' }));
	const tryToBegin = () => begin(house.otium, 'sit0', nanoid(), '');

	it('where it is needed nobody begins before it is done and right', async () => {
		const code = await open({ door: { ...DEFAULT_RULES.door, checklist: 'needed' } });
		await arriveAt(house, 0, code);
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'let_in' } }]);
		expect(await tryToBegin()).toMatchObject({ ok: false, refusal: { code: 'device_unchecked' } });
		const without = (key: string) => results.map((one) => (one.key === key ? { ...one, ok: false } : one));
		expect((await from(ready, { deviceName: 'Laptop', results: without('storage') })).body).toEqual({ ready: false });
		expect(await tryToBegin()).toMatchObject({ ok: false });
		house.clock.at += 1_000;
		// Nothing in this paper is heard.
		expect((await from(ready, { deviceName: 'Laptop', results: without('sound') })).body).toEqual({ ready: true });
		expect(await tryToBegin()).toMatchObject({ ok: true });
	});

	it('where it is offered it may be skipped', async () => {
		const code = await open();
		await bringToWork(house, 0, code);
		expect((await sitting()).sitting.state).toBe('working');
	});
});

describe('looking back', () => {
	const look = async () => from(review);
	const finish = async (rules: Partial<SessionRules>) => {
		const code = await open(rules);
		await bringToWork(house, 0, code);
		await house.otium.answers.save('sit0', 1, [
			{ seq: 1, questionId: 'q1', value: true, marked: false, struck: [], inViewMs: 9_000 },
			{ seq: 2, questionId: 'q2', value: true, marked: false, struck: [], inViewMs: 9_000 }
		]);
		expect((await look()).status).toBe(409);
		await act(house.otium, [
			{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'hand_in', receipt: 'R-1', reason: null } }
		]);
	};

	it('never before the hand-in, and nothing where the rules say nothing', async () => {
		await finish({});
		expect((await look()).body.code).toBe('no_review');
	});

	it('the score at once, where the rules say so', async () => {
		await finish({
			review: { shows: 'score', when: 'at_once' },
			result: { passPercent: 10, creditPercent: 80, bands: [{ fromPercent: 10, name: 'Begun', message: 'Go on.' }] }
		});
		expect((await look()).body).toEqual({
			points: 1,
			outOf: 6,
			toMark: 0,
			passed: true,
			band: { name: 'Begun', message: 'Go on.' },
			questions: null
		});
	});

	it('the right answers when everybody has finished, and not a word of them before', async () => {
		await finish({ review: { shows: 'key', when: 'all_finished' } });
		expect((await look()).text).not.toContain('right');
		await endSession(house.otium, 's1', COORDINATOR);
		// The two who did not come are owed a make-up, until the administration's last day is over.
		await house.otium.db('administration').update({ closes_on: '2026-12-08' });
		expect((await look()).text).not.toContain('right');
		house.clock.at += 48 * 60 * MINUTE;
		const got = (await look()).body as unknown as Review;
		expect(got.questions!.map((one) => one.verdict)).toContain('wrong');
		expect(got.questions).toHaveLength(6);
	});

	it('the right answers wait for whoever works on in a window of their own, also where they come at once', async () => {
		house = await buildHouse({ candidates: 2, rules: { review: { shows: 'key', when: 'at_once' } } });
		const code = await openDoor(house);
		await giveGrant(house.otium, COORDINATOR, nanoid(), {
			candidateId: 'can1',
			scope: { kind: 'session', id: 's1' },
			body: { kind: 'own_window', opens: NINE, closes: NINE + 300 * MINUTE },
			reason: 'ferry',
			givenBy: 'ode',
			givenAt: NINE
		});
		await bringToWork(house, 1, code);
		await bringToWork(house, 0, code);
		const handIn = (sittingId: string) =>
			act(house.otium, [
				{ id: nanoid(), sittingId, by: PROCTOR, body: { kind: 'hand_in', receipt: 'R', reason: null } }
			]);
		await handIn('sit0');
		await endSession(house.otium, 's1', PROCTOR);
		expect((await look()).body.code).toBe('no_review');
		await handIn('sit1');
		expect((await look()).status).toBe(200);
	});

	it('own answers come without saying which were right', async () => {
		await finish({ review: { shows: 'own_answers', when: 'at_once' } });
		const got = (await look()).body as unknown as Review;
		expect(got.questions!.every((one) => one.verdict === null && one.right === null && one.points === null)).toBe(true);
	});

	it('behind the lock as well, where the rules lock it', async () => {
		await finish({ review: { shows: 'score', when: 'at_once' } });
		const row = await house.otium.db('session').where({ id: 's1' }).first('rules');
		const rules = JSON.parse(row.rules);
		await house.otium.db('session').update({
			rules: JSON.stringify({ ...rules, lockdown: { ...DEFAULT_RULES.lockdown, level: 'sealed', alsoForReview: true } })
		});
		expect((await look()).body.code).toBe('client_unproven');
	});
});

describe('a device that was freed', () => {
	it('raises no hand, takes no break, reads nothing, and reports nothing any more', async () => {
		const code = await open({ review: { shows: 'key', when: 'at_once' } });
		await bringToWork(house, 0, code);
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'move_device' } }]);
		const now = house.otium.now();
		const asks: [unknown, unknown][] = [
			[hand, { up: true, text: '' }],
			[pause, { on: true }],
			[lapses, { lapses: [{ id: 'lapse-of-old', kind: 'left', from: now, to: now }] }],
			[seen, { seen: ['x'] }],
			[ready, { deviceName: 'Old', results: [] }],
			[review, {}]
		];
		for (const [handler, body] of asks) expect((await from(handler, body)).body.code).toBe('second_device');
		for (const table of ['message', 'lapse', 'device_check']) expect(await house.otium.db(table)).toEqual([]);
	});
});

describe('what a device tells of itself', () => {
	it('shows the proctor which question it has, what its screen shows, and a battery that is low', async () => {
		const code = await open();
		await bringToWork(house, 0, code);
		await from(beat, { at: 3, battery: 0.1, shows: 'working' });
		const drawn = await drawRoom(house.otium.db, 's1', house.otium.now(), undefined, house.otium.presence.told);
		expect(drawn!.seats[0]).toMatchObject({ at: 3, battery: 0.1, shows: 'working' });
		for (const wrong of [{ at: -1 }, { battery: 2 }, { shows: 'asleep' }])
			expect((await from(beat, wrong)).status).toBe(400);
	});
});

describe('snapshots', () => {
	const send = (bytes: Uint8Array, i = 0) =>
		(snapshot as (event: never) => Promise<Response>)({
			request: new Request('http://localhost/', { method: 'POST', body: Buffer.from(bytes) }),
			locals: {
				otium: house.otium,
				device: { sittingId: `sit${i}`, epoch: 1, publicKey: null },
				address: '10.0.0.1',
				digest: null
			}
		} as never);
	const made = sharp({ create: { width: 320, height: 240, channels: 3, background: '#1f5e57' } })
		.jpeg()
		.toBuffer();
	const rules = { lockdown: { ...DEFAULT_RULES.lockdown, snapshotSeconds: 20, snapshotDays: 5 } };

	it('are kept in files, not more often than the rules say, and deleted after their days', async () => {
		const code = await open(rules);
		await bringToWork(house, 0, code);
		expect((await send(await made)).status).toBe(200);
		expect((await send(await made)).status).toBe(422);
		house.clock.at += 20_000;
		expect((await send(await made)).status).toBe(200);
		expect(await snapshotsOf(house.otium.db, 'sit0')).toHaveLength(2);
		house.clock.at += 4 * 24 * 60 * MINUTE;
		expect(await deleteOldSnapshots(house.otium)).toBe(0);
		house.clock.at += 24 * 60 * MINUTE;
		expect(await deleteOldSnapshots(house.otium)).toBe(2);
		expect(await snapshotsOf(house.otium.db, 'sit0')).toEqual([]);
		expect(await house.otium.db('snapshot').whereNotNull('deleted_at')).toHaveLength(2);
	});

	it('anything but a small JPEG is refused, and so is one that nobody asked for', async () => {
		const code = await open(rules);
		await bringToWork(house, 0, code);
		expect((await send(new TextEncoder().encode('<html>'))).status).toBe(422);
		expect((await send(Uint8Array.from([...(await made), ...new Uint8Array(120_000)]))).status).toBe(422);
		await house.otium.db('session').update({ rules: JSON.stringify(DEFAULT_RULES) });
		expect((await send(await made)).status).toBe(409);
	});
});
