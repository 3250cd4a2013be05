import { nanoid } from 'nanoid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { MINUTE } from '$core/time';
import { giveGrant } from '../grants';
import { lettersFor, templateFor } from '../mail';
import { endSession, findSession, inputOf, owingOf, planSession } from '../session';
import { act } from '../sitting';
import {
	arriveAt,
	bringToWork,
	buildHouse,
	COORDINATOR,
	NINE,
	openDoor,
	planMakeUp,
	type House
} from '../testing/house';
import { scansDuring } from '../testing/plans';
import { somebody } from '../testing/staff';
import { countOwed, join, makeUp, offerMakeUp, owedAmong, owedTo, sessionsToJoin, takeWaiverBack, waive } from '.';

const ODE = somebody('ode', 'coordinator', null);
let house: House;
beforeEach(async () => {
	house = await buildHouse({ candidates: 4 });
	const code = await openDoor(house);
	for (const i of [0, 1]) await bringToWork(house, i, code);
	house.clock.at = NINE + 20 * MINUTE;
	await command(0, { kind: 'hand_in', receipt: 'r', reason: null });
	await endSession(house.otium, 's1', COORDINATOR);
});
afterEach(() => house.close());
const command = (i: number, body: Parameters<typeof act>[1][number]['body']) =>
	act(house.otium, [{ id: nanoid(), sittingId: `sit${i}`, by: COORDINATOR, body }]);
const told = async () =>
	(await owedTo(house.otium.db, ODE, house.clock.at)).map((one) => `${one.sittingId} ${one.state} ${one.why}`).sort();
const among = (...ids: string[]) => owedAmong(house.otium.db, ODE, ids, house.clock.at);
const MONDAY = {
	date: '2026-12-14',
	time: '10:00',
	untilDate: null,
	until: '11:15',
	roomId: 'chart',
	proctorIds: [],
	tell: false
};

describe('owed', () => {
	it('over a weekend: still there on Monday, with its age, and settled by a make-up for exactly those', async () => {
		expect(await told()).toEqual(['sit1 owed carried_over', 'sit2 owed absent', 'sit3 owed absent']);
		house.clock.at = Date.parse('2026-12-14T07:30:00Z');
		expect(await countOwed(house.otium.db, ODE, house.clock.at)).toEqual({ count: 3, since: NINE + 20 * MINUTE });

		const owed = await among('sit1', 'sit2');
		const { minutes, proposals } = await offerMakeUp(house.otium.db, owed, house.clock.at);
		expect(minutes).toBe(60);
		// Nobody may supervise by a role here yet, so nothing is proposed; by hand it can be planned.
		expect(proposals).toEqual([]);
		const made = await makeUp(house.otium, ODE, COORDINATOR, owed, MONDAY, 'https://otium.example');
		const session = (await findSession(house.otium.db, made.sessionId))!;
		expect(session).toMatchObject({ kind: 'make_up', rules: { order: { questionsInOwnOrder: true } } });
		expect(await house.otium.db('roster').where({ session_id: made.sessionId }).pluck('sitting_id')).toEqual(
			expect.arrayContaining(['sit1', 'sit2'])
		);
		expect(await told()).toEqual(['sit1 arranged carried_over', 'sit2 arranged absent', 'sit3 owed absent']);

		// Nobody else can enter by it: not whoever has handed in, nor whoever is owed as well but was not put there.
		house.clock.at = Date.parse('2026-12-14T10:00:00Z');
		const code = await openDoor({ ...house, sessionId: made.sessionId });
		expect(await arriveAt(house, 2, code)).toMatchObject({ ok: true });
		for (const i of [0, 3]) {
			const refused = await arriveAt(house, i, code).catch((error: Error) => ({ ok: false, why: error.message }));
			expect(refused.ok).toBe(false);
		}
		expect(await told()).toEqual(['sit1 arranged carried_over', 'sit3 owed absent']);
	});

	it('who goes on is planned, and told, for what is left to them', async () => {
		const { db } = house.otium;
		const owed = await among('sit1');
		expect(owed).toMatchObject([{ hasBegun: true, minutesLeft: 40 }]);
		expect(await offerMakeUp(db, owed, house.clock.at)).toMatchObject({ minutes: 40 });
		const { sessionId } = await makeUp(house.otium, ODE, COORDINATOR, owed, MONDAY, 'https://otium.example');
		const session = (await findSession(db, sessionId))!;
		const template = await templateFor(db, 'candidate');
		const [letter] = await lettersFor(db, session, 'candidate', template, 'https://otium.example', house.clock.at);
		expect(letter.mail.body).toContain('40 minutes');
		const planned = await planSession(db, 'winter', await inputOf(db, session), house.clock.at, sessionId);
		const { rules, window } = session;
		const lastEntry = window.opens + rules.timing.lastEntryMinutes! * MINUTE;
		expect(planned.ok && planned.plan.facts.busyUntil).toBe(Math.max(window.closes!, lastEntry + 40 * MINUTE));
	});

	it('proposes times at which somebody supervises and nobody has anything else, on weekdays', async () => {
		const { db } = house.otium;
		await db('staff_role').insert({ staff_id: 'dunmore', role: 'proctor', site_id: 'quayside' });
		const friday = Date.parse('2026-12-11T16:30:00Z');
		house.clock.at = friday;
		await db('site').where({ id: 'quayside' }).update({ opens_daily: '08:00', closes_daily: '17:00' });
		await db('commitment').insert({
			id: 'c',
			candidate_id: 'can2',
			from_at: Date.parse('2026-12-14T08:00:00Z'),
			to_at: Date.parse('2026-12-14T12:00:00Z'),
			title: 'Chartwork'
		});
		const { proposals } = await offerMakeUp(db, await among('sit2', 'sit3'), friday);
		expect(new Date(proposals[0].opens).toISOString()).toBe('2026-12-14T12:00:00.000Z');
		expect(proposals.every((one) => ![0, 6].includes(new Date(one.opens).getUTCDay()))).toBe(true);
	});

	it('is arranged by an own window, and owed again when that has passed', async () => {
		await giveGrant(house.otium, COORDINATOR, 'window-for-two', {
			candidateId: 'can2',
			scope: { kind: 'session', id: 's1' },
			body: { kind: 'own_window', opens: NINE + 180 * MINUTE, closes: NINE + 300 * MINUTE },
			reason: 'ferry cancelled',
			givenBy: 'ode',
			givenAt: house.clock.at
		});
		expect(await told()).toContain('sit2 arranged absent');
		house.clock.at = NINE + 301 * MINUTE;
		expect(await told()).toContain('sit2 owed absent');
	});

	it('is settled by joining a planned session, and refused to whoever was settled meanwhile', async () => {
		const planned = await planMakeUp(house, { only: ['can3'] });
		const owed = await among('sit2');
		expect((await sessionsToJoin(house.otium.db, owed, house.clock.at)).map((one) => one.id)).toEqual([planned]);
		expect(await join(house.otium, COORDINATOR, owed, planned)).toEqual([]);
		expect(await told()).toContain('sit2 arranged absent');
		await expect(among('sit2')).rejects.toMatchObject({
			problem: { message: expect.stringContaining('not owed a sitting any more') }
		});
	});

	it('is waived with a reason, so that nothing waits for them any more, and taken back', async () => {
		const { db } = house.otium;
		expect(await owingOf(db, 'winter', 'numbers', house.clock.at)).toBe(3);
		await waive(house.otium, COORDINATOR, await among('sit2', 'sit3'), 'left the college');
		expect(await told()).toEqual(['sit1 owed carried_over', 'sit2 waived absent', 'sit3 waived absent']);
		expect(await owingOf(db, 'winter', 'numbers', house.clock.at)).toBe(1);
		const waived = (await owedTo(db, ODE, house.clock.at)).find((one) => one.sittingId === 'sit2')!;
		expect(waived.waiver).toMatchObject({ reason: 'left the college', by: 'Maren Ode' });
		expect(await takeWaiverBack(house.otium, COORDINATOR, waived)).toBe(true);
		expect(await takeWaiverBack(house.otium, COORDINATOR, waived)).toBe(false);
		expect(await owingOf(db, 'winter', 'numbers', house.clock.at)).toBe(2);
	});

	it('is found without reading every place for every sitting', async () => {
		const { db } = house.otium;
		expect(await scansDuring(db, ['roster'], () => owedTo(db, ODE, house.clock.at))).toEqual([]);
	});

	it('is nobody’s at another site', async () => {
		const elsewhere = somebody('sol', 'coordinator', 'lighthouse');
		expect(await owedTo(house.otium.db, elsewhere, house.clock.at)).toEqual([]);
		await expect(owedAmong(house.otium.db, elsewhere, ['sit2'], house.clock.at)).rejects.toMatchObject({ status: 403 });
	});
});
