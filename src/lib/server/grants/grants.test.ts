import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import { nanoid } from 'nanoid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { GrantBody } from '$core/grants';
import { MINUTE } from '$core/time';
import { formOf } from '../sitting';
import { endSession, findSession, rosterFor, sitAgain, tendOwnWindows } from '../session';
import { act, loadSitting } from '../sitting';
import { bringToWork, buildHouse, COORDINATOR, NINE, openDoor, PROCTOR, arriveAt, type House } from '../testing/house';
import { somebody } from '../testing/staff';
import {
	applyPlaces,
	checkPlaces,
	deleteOldEvidence,
	endedBy,
	evidenceFrom,
	findGrant,
	fitDay,
	foreseeGrants,
	giveGrant,
	giveGrants,
	grantsOfDay,
	proposeForAll,
	readEvidence,
	reopenFor,
	undoPlaces,
	withdrawGrant,
	type NewGrant
} from '.';

let house: House;
const ODE = somebody('ode', 'coordinator', null);
const grant = (body: GrantBody, change: Partial<NewGrant> = {}): NewGrant => ({
	candidateId: 'can0',
	scope: { kind: 'session', id: 's1' },
	body,
	reason: 'Access office',
	givenBy: 'ode',
	givenAt: house.clock.at,
	...change
});
const give = (body: GrantBody, change: Partial<NewGrant> = {}) => {
	const id = nanoid();
	return giveGrant(house.otium, COORDINATOR, id, grant(body, change)).then(() => id);
};
const sitting = async (i: number) => (await loadSitting(house.otium.db, `sit${i}`, house.clock.at))!;
const command = (i: number, body: Parameters<typeof act>[1][number]['body'], by = COORDINATOR) =>
	act(house.otium, [{ id: nanoid(), sittingId: `sit${i}`, by, body }]);
afterEach(() => house.close());

describe('each kind does what it says', () => {
	beforeEach(async () => (house = await buildHouse()));

	it('whoever works on after the close, as the rules let them, does not fail to fit', async () => {
		await house.otium
			.db('session')
			.where({ id: 's1' })
			.update({ closes: NINE + 60 * MINUTE });
		await give({ kind: 'extra_time', factor: 2, minutes: 0 }, { scope: { kind: 'standing' } });
		await bringToWork(house, 0, await openDoor(house));
		// A pause that stopped their clock takes them beyond what was planned.
		house.clock.at = NINE + 30 * MINUTE;
		await command(0, { kind: 'hold', reason: 'Fire drill', stopsClock: true }, PROCTOR);
		house.clock.at = NINE + 60 * MINUTE;
		await command(0, { kind: 'resume' }, PROCTOR);
		house.clock.at = NINE + 80 * MINUTE + 20_000;
		const lines = await grantsOfDay(house.otium.db, ODE, { day: '2026-12-08', now: house.clock.at });
		expect(lines.map((line) => [line.name, line.misfits])).toEqual([['Given0 Family0', []]]);
	});

	it('another attempt is offered to that one alone, also where the rules give one', async () => {
		const code = await openDoor(house);
		for (const i of [0, 1]) {
			await bringToWork(house, i, code);
			await command(i, { kind: 'hand_in', receipt: 'r', reason: null }, PROCTOR);
		}
		await give({ kind: 'extra_attempt', count: 1 });
		const again = (i: number) =>
			sitAgain(house.otium, `sit${i}`, { commandId: nanoid(), deviceId: `device${i}`, deviceName: 'Laptop' });
		expect(await again(1)).toMatchObject({ ok: false });
		expect(await again(0)).toMatchObject({ ok: true });
		// And only once.
		const { next_attempt_id } = await house.otium.db('sitting').where({ id: 'sit0' }).first('next_attempt_id');
		expect(next_attempt_id).toBeTruthy();
	});

	it('another attempt may be planned on another day', async () => {
		await bringToWork(house, 0, await openDoor(house));
		await command(0, { kind: 'hand_in', receipt: 'r', reason: null }, PROCTOR);
		const asked = {
			administrationId: 'winter',
			paperId: 'numbers',
			kind: 'make_up' as const,
			groupIds: ['watch'],
			only: ['can0'],
			alsoIds: [],
			attempts: { most: 1, waitMinutes: 0, laterWaitMinutes: 0 },
			opens: NINE + 300 * MINUTE
		};
		expect((await rosterFor(house.otium.db, asked)).people).toEqual([]);
		const id = await give({ kind: 'extra_attempt', count: 1 }, { scope: { kind: 'paper', id: 'numbers' } });
		expect((await rosterFor(house.otium.db, asked)).people).toMatchObject([{ candidateId: 'can0', attempt: 2 }]);
		await withdrawGrant(house.otium, COORDINATOR, id);
		expect((await rosterFor(house.otium.db, asked)).people).toEqual([]);
	});

	it('an order of their own where the rules keep the paper’s', async () => {
		const rules = (await findSession(house.otium.db, 's1'))!.rules;
		const order = { questionsInOwnOrder: false, choicesInOwnOrder: false };
		await house.otium
			.db('session')
			.where({ id: 's1' })
			.update({ rules: JSON.stringify({ ...rules, order }) });
		await give({ kind: 'other_form' });
		const code = await openDoor(house);
		await bringToWork(house, 0, code);
		await bringToWork(house, 1, code);
		const ids = async (i: number) => (await formOf(house.otium.db, `sit${i}`))!.questions.map(({ id }) => id);
		expect(await ids(1)).toEqual(['q1', 'q2', 'q3', 'q4', 'q5', 'q6']);
		expect(await ids(0)).not.toEqual(await ids(1));
		expect((await ids(0)).sort()).toEqual(await ids(1));
	});

	it('language, helper, copy and room are told together', async () => {
		await give({ kind: 'language', tag: 'pt' });
		await give({ kind: 'beside', as: 'reader', name: 'Adela Finch' });
		await give({ kind: 'paper_copy' });
		const { merge } = await sitting(0);
		expect(merge).toMatchObject({ language: 'pt', paperCopy: true, beside: [{ as: 'reader', name: 'Adela Finch' }] });
		expect(merge.reasons).toEqual([
			'reads it in Portuguese, for this session',
			'a reader beside them: Adela Finch, for this session',
			'a copy on paper, for this session'
		]);
	});

	it('what holds for a time holds for sessions of that time', async () => {
		const extra: GrantBody = { kind: 'extra_time', factor: 2, minutes: 0 };
		const from = Date.parse('2026-12-09T00:00:00Z');
		await give(extra, { scope: { kind: 'standing' }, from });
		expect((await sitting(0)).reckoning.allotted).toBe(60 * MINUTE);
		await give(extra, { scope: { kind: 'standing' }, until: from });
		expect((await sitting(0)).reckoning.allotted).toBe(120 * MINUTE);
	});

	it('who supervises in somebody’s own window may act in their session, and no longer once it is withdrawn', async () => {
		const window = { kind: 'own_window', opens: NINE + 120 * MINUTE, closes: NINE + 240 * MINUTE } as const;
		const id = await give({ ...window, proctor: { id: 'ode', name: 'Maren Ode' } });
		expect((await findSession(house.otium.db, 's1'))!.proctorIds).toEqual(['dunmore', 'ode']);
		await withdrawGrant(house.otium, COORDINATOR, id);
		expect((await findSession(house.otium.db, 's1'))!.proctorIds).toEqual(['dunmore']);
	});
});

describe('before it is given', () => {
	beforeEach(async () => (house = await buildHouse({ timing: { atClose: 'cut' } })));

	it('a group whose members differ is told one by one, and given to all or to none', async () => {
		await give({ kind: 'extra_time', factor: 2, minutes: 0 }, { scope: { kind: 'standing' }, candidateId: 'can1' });
		const extra = { kind: 'extra_time', factor: 1.5, minutes: 0 } as const;
		const all = ['can0', 'can1', 'can2'].map((candidateId) => grant(extra, { candidateId }));
		const { effects } = await foreseeGrants(house.otium.db, all, null, NINE);
		expect(effects.map((effect) => effect.after)).toEqual([
			'60 + 30 = 90 min, ends 10:15 at the latest',
			'60 + 60 = 120 min, ends 10:15 at the latest',
			'60 + 30 = 90 min, ends 10:15 at the latest'
		]);
		expect(effects.every((effect) => effect.misfits.length > 0)).toBe(true);
		const bad = [
			{ id: 'one-of-them', grant: all[0] },
			{ id: 'another', grant: { ...all[1], candidateId: 'nobody' } }
		];
		await expect(giveGrants(house.otium, COORDINATOR, bad)).rejects.toThrow();
		expect(await findGrant(house.otium.db, 'one-of-them')).toBeNull();
	});

	it('says that no window is needed, that somebody has handed in, and what withdrawing would end', async () => {
		const ten = grant({ kind: 'extra_time', factor: 1, minutes: 10 });
		expect((await foreseeGrants(house.otium.db, [ten], 'sit0', NINE)).effects[0]).toMatchObject({
			misfits: [],
			notes: ['The session’s window is long enough: no window of their own is needed.']
		});
		await giveGrant(house.otium, COORDINATOR, 'ten-minutes', ten);
		await bringToWork(house, 0, await openDoor(house));
		house.clock.at = NINE + 65 * MINUTE;
		expect(await endedBy(house.otium.db, (await findGrant(house.otium.db, 'ten-minutes'))!, house.clock.at)).toEqual([
			'Given0 Family0 is at work and has used 65 minutes: without it their time would be over at once.'
		]);
		await command(0, { kind: 'hand_in', receipt: 'r', reason: null }, PROCTOR);
		const { effects } = await foreseeGrants(house.otium.db, [ten], 'sit0', house.clock.at);
		expect(effects[0].notes).toEqual(['Handed in at 10:05: this counts once the sitting is reopened.']);
	});

	it('the day’s list puts what does not fit first, and says why', async () => {
		await give({ kind: 'extra_time', factor: 1.5, minutes: 0 }, { scope: { kind: 'standing' } });
		await give({ kind: 'extra_time', factor: 1, minutes: 5 }, { candidateId: 'can1' });
		const lines = await grantsOfDay(house.otium.db, ODE, { day: '2026-12-08', now: NINE });
		expect(lines.map((line) => [line.name, line.misfits])).toEqual([
			['Given0 Family0', ['The window 09:00 to 10:15 is 15 min too short: it cuts the time granted.']],
			['Given1 Family1', []]
		]);
	});
});

describe('evidence', () => {
	beforeEach(async () => (house = await buildHouse()));

	it('lies sealed on the disk, is kept once, and is deleted after a year', async () => {
		const shown = {
			name: 'letter.txt',
			type: 'text/plain' as const,
			base64: Buffer.from('A broken arm.').toString('base64')
		};
		const id = (await evidenceFrom(house.otium, shown))!;
		expect(await evidenceFrom(house.otium, shown)).toBe(id);
		const folder = join(house.dir, 'evidence');
		expect(readdirSync(folder)).toEqual([id]);
		expect(readFileSync(join(folder, id), 'latin1')).not.toMatch(/broken|QSBicm9rZW4/);
		expect(Buffer.from((await readEvidence(house.otium, id))!.bytes).toString()).toBe('A broken arm.');
		house.clock.at += 366 * 24 * 60 * MINUTE;
		expect(await deleteOldEvidence(house.otium)).toBe(1);
		expect(await readEvidence(house.otium, id)).toBeNull();
		expect(readdirSync(folder)).toEqual([]);
		await expect(evidenceFrom(house.otium, { ...shown, base64: '' })).rejects.toMatchObject({ status: 422 });
	});
});

describe('opening one sitting again', () => {
	beforeEach(async () => {
		house = await buildHouse();
		const code = await openDoor(house);
		await bringToWork(house, 0, code);
		await bringToWork(house, 1, code);
		house.clock.at = NINE + 20 * MINUTE;
		for (const i of [0, 1]) await command(i, { kind: 'hand_in', receipt: 'r', reason: null }, PROCTOR);
	});
	const asked = {
		id: 'open-it-again',
		sittingId: 'sit0',
		reason: 'Handed in by mistake',
		minutes: 0,
		window: null,
		anotherDay: false
	};
	const window = { date: '2026-12-08', opens: '11:00', closes: '12:00', roomId: null, proctorId: null };
	const reopen = (change: object = {}) => reopenFor(house.otium, ODE, COORDINATOR, { ...asked, ...change });

	it('goes on in the session at once, with the time that was left, and the other stays handed in', async () => {
		house.clock.at = NINE + 25 * MINUTE;
		expect(await reopen()).toMatchObject({ words: expect.stringContaining('At work again') });
		const { sitting: open, reckoning } = await sitting(0);
		expect(open.state).not.toBe('handed_in');
		expect(reckoning.remaining! / MINUTE).toBe(40);
		expect((await sitting(1)).sitting.state).toBe('handed_in');
	});

	it('after the session: in a window of their own, by a code that lets in nobody else', async () => {
		await endSession(house.otium, 's1', COORDINATOR);
		house.clock.at = NINE + 90 * MINUTE;
		await expect(reopen()).rejects.toMatchObject({ problem: { message: 'This session has ended.' } });
		const { code } = await reopen({ window, minutes: 5 });
		house.clock.at = NINE + 121 * MINUTE;
		expect((await sitting(0)).reckoning.remaining! / MINUTE).toBe(45);
		expect(await arriveAt(house, 0, code!)).toMatchObject({ ok: true });
		expect(await arriveAt(house, 1, code!)).toMatchObject({ ok: false, refusal: { code: 'session_ended' } });
		expect(await arriveAt(house, 2, code!)).toMatchObject({ ok: false, refusal: { code: 'session_ended' } });
	});

	it('on a later day only with a grant that says so, which may be given in the same act', async () => {
		await endSession(house.otium, 's1', COORDINATOR);
		const later = { window: { ...window, date: '2026-12-09' } };
		await expect(reopen(later)).rejects.toMatchObject({ problem: { code: 'another_day' } });
		expect(await house.otium.db('grant_given')).toEqual([]);
		await reopen({ ...later, anotherDay: true });
		expect((await sitting(0)).sitting.state).toBe('carried_over');
		house.clock.at = Date.parse('2026-12-09T11:05:00Z');
		await tendOwnWindows(house.otium, 's1', COORDINATOR);
		const { doorCode } = (await findSession(house.otium.db, 's1'))!;
		expect(await arriveAt(house, 0, doorCode!)).toMatchObject({ ok: true });
	});

	it('leaves no grant behind when it can’t be done', async () => {
		house.clock.at = NINE + 30 * MINUTE;
		await reopen();
		await expect(reopen({ id: 'and-once-more' })).rejects.toMatchObject({ status: 422 });
		house.clock.at = NINE + 200 * MINUTE;
		expect(await house.otium.db('grant_given').whereNull('withdrawn_at')).toEqual([]);
	});
});

describe('windows for everyone whose time does not fit', () => {
	beforeEach(async () => {
		house = await buildHouse({ candidates: 6, timing: { atClose: 'cut' } });
		const { db } = house.otium;
		house.clock.at = NINE - 120 * MINUTE;
		await db('room').insert({ id: 'quiet', site_id: 'quayside', name: 'Quiet Room', seat_rows: 1, seats_per_row: 4 });
		await db('staff').insert({ id: 'finch', name: 'Adela Finch', sign_in: 'finch', password_hash: '-' });
		await db('staff_role').insert({ staff_id: 'finch', role: 'proctor', site_id: 'quayside' });
		for (const candidateId of ['can0', 'can1', 'can2'])
			await give({ kind: 'extra_time', factor: 1.5, minutes: 0 }, { candidateId, scope: { kind: 'standing' } });
	});
	const DAY = '2026-12-08';
	const propose = () => proposeForAll(house.otium, ODE, 'quayside', DAY);
	const applied = async (id = 'plan-of-the-day') => {
		const { places } = await propose();
		return applyPlaces(
			house.otium,
			ODE,
			COORDINATOR,
			{ id, siteId: 'quayside', day: DAY, places, reason: 'does not fit', tell: true },
			'https://otium.example'
		);
	};

	it('are proposed, given to all at once, told by mail, and taken back at once', async () => {
		await house.otium.db('candidate').where({ id: 'can0' }).update({ email: 'zoe@sea.example' });
		const before = await fitDay(house.otium.db, ODE, 'quayside', DAY, house.clock.at);
		expect(before.people.map((person) => [person.name, person.minutes])).toEqual([
			['Given0 Family0', 90],
			['Given1 Family1', 90],
			['Given2 Family2', 90]
		]);
		expect(await applied()).toEqual({ given: 3, mails: 1 });
		expect((await propose()).places).toEqual([]);
		expect((await fitDay(house.otium.db, ODE, 'quayside', DAY, house.clock.at)).people).toEqual([]);
		const { merge, reckoning } = await sitting(0);
		expect((reckoning.windowEnd! - reckoning.window.opens) / MINUTE).toBeGreaterThanOrEqual(90);
		expect(merge.reasons.at(-1)).toMatch(/own window .*, for this session/);
		expect(await undoPlaces(house.otium, ODE, COORDINATOR, 'plan-of-the-day')).toBe(3);
		expect((await fitDay(house.otium.db, ODE, 'quayside', DAY, house.clock.at)).people).toHaveLength(3);
		await expect(undoPlaces(house.otium, ODE, COORDINATOR, 'plan-of-the-day')).rejects.toMatchObject({ status: 409 });
	});

	it('are not taken back once a door is open, and not given when somebody else was faster', async () => {
		const { places } = await propose();
		const asked = { siteId: 'quayside', day: DAY, places, reason: 'x', tell: false };
		const apply = (id: string) => applyPlaces(house.otium, ODE, COORDINATOR, { ...asked, id }, 'https://o.example');
		await apply('first-of-two');
		await expect(apply('second-of-two')).rejects.toMatchObject({
			problem: { message: expect.stringContaining('while you looked') }
		});
		house.clock.at = Math.min(...places.map((place) => place.opens)) - 5 * MINUTE;
		await expect(undoPlaces(house.otium, ODE, COORDINATOR, 'first-of-two')).rejects.toMatchObject({
			problem: { message: expect.stringContaining('open already') }
		});
	});

	it('changed by hand are looked over with everybody else in their places', async () => {
		const { places } = await propose();
		const [a, b, ...others] = places.map((place) => ({ ...place, roomId: 'quiet', proctorId: 'finch' }));
		const alone = { ...a, opens: NINE - 60 * MINUTE, closes: NINE + 40 * MINUTE };
		const check = (all: typeof places) => checkPlaces(house.otium.db, ODE, 'quayside', DAY, all, house.clock.at);
		expect((await check([alone]))[a.id]).toEqual([]);
		const elsewhere = { ...b, roomId: 'chart', opens: alone.opens, closes: alone.closes };
		expect((await check([alone, elsewhere, ...others]))[b.id]).toContain('Adela Finch is in another room then.');
		const late = { ...alone, closes: alone.opens + 60 * MINUTE };
		expect((await check([late]))[a.id][0]).toContain('30 min too short');
	});
});
