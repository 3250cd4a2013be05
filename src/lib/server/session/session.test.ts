import { nanoid } from 'nanoid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { DEFAULT_RULES, type SessionRules } from '$core/session';
import { MINUTE } from '$core/time';
import { accountFor } from '../closing';
import { foreseeGrants, giveGrant } from '../grants';
import { act, begin, loadSitting } from '../sitting';
import { sweep } from '../sweep';
import { arriveAt, bringToWork, buildHouse, COORDINATOR, NINE, openDoor, PROCTOR, type House } from '../testing/house';
import { blankInput, endSession, findSession, planAll, planSession, saveSession, type SessionInput } from '.';

let house: House;
beforeEach(async () => {
	house = await buildHouse();
	await house.otium.db('paper').insert({
		id: 'letters',
		title: 'Letters',
		version: 2,
		content: (await house.otium.db('paper').first('content')).content
	});
	await house.otium.db('paper_allowed').insert({ administration_id: 'winter', paper_id: 'letters' });
});
afterEach(() => house.close());

const input = (change: Partial<SessionInput> = {}): SessionInput => ({
	...blankInput('Europe/London', NINE),
	paperId: 'letters',
	groupIds: ['watch'],
	roomId: 'chart',
	date: '2026-12-08',
	time: '14:00',
	until: '15:15',
	proctorIds: ['dunmore'],
	...change
});
const limit = (minutes: number): SessionRules => ({
	...DEFAULT_RULES,
	timing: { ...DEFAULT_RULES.timing, limitMinutes: minutes }
});
const plan = async (change: Partial<SessionInput> = {}) => {
	const planned = await planSession(house.otium.db, 'winter', input(change), house.otium.now());
	return planned.ok ? { ok: true as const, ...planned.plan } : { ok: false as const, errors: planned.errors };
};
const save = (change: Partial<SessionInput> = {}, edit?: { id: string; revision: number }) =>
	saveSession(house.otium, COORDINATOR, 'winter', input(change), edit);
const saved = async (change: Partial<SessionInput> = {}, edit?: { id: string; revision: number }) => {
	const result = await save(change, edit);
	if (!result.ok) throw new Error(result.message);
	return result.ids[0];
};
const sitting = async (i: number) => (await loadSitting(house.otium.db, `sit${i}`, house.otium.now()))!;

describe('planning', () => {
	it('tells the session in a sentence, proposes a name, and writes nothing', async () => {
		const told = await plan();
		expect(told).toMatchObject({ name: 'Letters · Watch A · 8 Dec', findings: [{ code: 'length', level: 'info' }] });
		expect(told.ok && told.sentence.map((part) => part.text).join('')).toContain(
			'3 candidates of Watch A sit Letters (version 2) in the Chart Room on Tuesday 8 December at 14:00 GMT'
		);
		expect(await house.otium.db('session')).toHaveLength(1);
	});

	it('asks about times that the clocks jump over or repeat, at the field', async () => {
		expect(await plan({ date: '2026-03-29', time: '01:30' })).toHaveProperty('errors', {
			time: 'The clocks jump over 01:30 on that day. The next time there is 02:00.'
		});
		expect(await plan({ date: '2026-10-25', time: '00:30', until: '01:30' })).toHaveProperty('errors', {
			until: 'The clocks go back that night, so 01:30 comes twice. Choose a time outside that hour.'
		});
	});

	it('names the room’s other session, and who is left out and why', async () => {
		const told = await plan({ paperId: 'numbers', time: '09:30', until: '10:30' });
		const messages = told.ok ? told.findings.map((finding) => finding.message) : [];
		expect(messages).toContain('The Chart Room has Numbers · Watch A at that time.');
		expect(messages).toContain(
			'Already expected in Numbers · Watch A: Given0 Family0, Given1 Family1 and Given2 Family2.'
		);
		expect(messages).toContain('Choose a group that has candidates.');
	});

	it('a session without an end is taken to last its limit, for the room and for who supervises', async () => {
		await house.otium.db('session').update({ closes: null, rules: JSON.stringify(limit(150)) });
		const codesAt = async (time: string, until: string) => {
			const told = await plan({ time, until, proctorIds: ['dunmore'] });
			return told.ok ? told.findings.map(({ code }) => code) : [];
		};
		// Two hours after it began somebody is still at work there, four hours after it nobody is.
		expect(await codesAt('11:00', '11:20')).toEqual(expect.arrayContaining(['room_clash', 'proctor_clash']));
		const later = await codesAt('13:00', '13:20');
		expect(later).not.toContain('room_clash');
		expect(later).not.toContain('proctor_clash');
	});

	it('a room is taken until the last may have finished: whoever comes at the end of entry, and whoever has more time', async () => {
		// Entry until 09:15, an hour, and a minute of grace: 10:16; the window closes before that.
		await house.otium
			.db('session')
			.update({ closes: Date.parse('2026-12-08T09:20Z'), rules: JSON.stringify(limit(60)) });
		const isTaken = async (time: string) => {
			const told = await plan({ time, until: '16:00' });
			return told.ok && told.findings.some(({ code }) => code === 'room_clash');
		};
		expect(await isTaken('10:15')).toBe(true);
		expect(await isTaken('10:20')).toBe(false);
		await giveGrant(house.otium, COORDINATOR, nanoid(), {
			candidateId: 'can1',
			scope: { kind: 'standing' },
			body: { kind: 'extra_time', factor: 2, minutes: 0 },
			reason: 'standing',
			givenBy: 'ode',
			givenAt: NINE
		});
		expect(await isTaken('11:10')).toBe(true);
		expect(await isTaken('11:20')).toBe(false);
	});

	it('starts in groups are counted together on the seats of a room for as long as the earlier still work', async () => {
		const room = await house.otium.db('room').where({ id: 'chart' }).first();
		await house.otium.db('room').where({ id: 'chart' }).update({ seat_rows: 1, seats_per_row: 2 });
		const part = (label: string, time: string, only: string[]) => ({ ...input(), label, time, only, withinDays: null });
		const parts = (last: string) => [
			part('at 14:00', '14:00', ['can0']),
			part('at 14:20', '14:20', ['can1']),
			{ ...part('the last', last, ['can2']), until: '16:40' }
		];
		const blocked = async (last: string) => {
			const planned = await planAll(
				house.otium.db,
				'winter',
				input({ rules: limit(60), parts: parts(last) as SessionInput['parts'] }),
				house.otium.now()
			);
			if (!planned.ok) throw new Error(JSON.stringify(planned.errors));
			return planned.plans.flatMap(({ findings }) =>
				findings.filter(({ code }) => code === 'room_twice').map(({ message }) => message)
			);
		};
		expect(await blocked('14:40')).toEqual([
			'at 14:00, at 14:20 and the last would be in the Chart Room at once: 3 people, 2 seats.'
		]);
		// Whoever came to the first at 14:15 is done at 15:16.
		expect(await blocked('15:20')).toEqual([]);
		expect(room.seat_rows).toBeGreaterThan(1);
	});

	it('counts extra time into the sentence', async () => {
		await giveGrant(house.otium, COORDINATOR, nanoid(), {
			candidateId: 'can1',
			scope: { kind: 'standing' },
			body: { kind: 'extra_time', factor: 1.5, minutes: 0 },
			reason: 'standing',
			givenBy: 'ode',
			givenAt: NINE
		});
		const told = await plan();
		expect(told.ok && told.facts.extraTime).toMatchObject({
			count: 1,
			// Entry goes on until 14:15.
			lastEnds: Date.parse('2026-12-08T15:45:00Z'),
			needs: [{ person: { name: 'Given1 Family1' }, minutes: 90 }]
		});
	});
});

describe('saving', () => {
	it('seats everyone row by row and can be changed until the door opens', async () => {
		const id = await saved();
		const seats = await house.otium.db('roster').where({ session_id: id }).orderBy('seat').pluck('seat');
		expect(seats).toEqual(['A1', 'A2', 'A3']);
		await saved({ rules: limit(45) }, { id, revision: 1 });
		const session = (await findSession(house.otium.db, id))!;
		expect([session.revision, session.rules.timing.limitMinutes]).toEqual([2, 45]);
		house.clock.at = Date.parse('2026-12-08T13:45:00Z');
		expect(await save({ rules: limit(90) }, { id, revision: 2 })).toMatchObject({
			ok: false,
			message: expect.stringContaining('The door is open')
		});
	});

	it('tells the second of two editors instead of overwriting the first', async () => {
		const id = await saved();
		await saved({ rules: limit(45) }, { id, revision: 1 });
		expect(await save({ rules: limit(30) }, { id, revision: 1 })).toMatchObject({
			ok: false,
			message: expect.stringContaining('Somebody else has changed')
		});
		expect((await findSession(house.otium.db, id))!.rules.timing.limitMinutes).toBe(45);
	});

	it('refuses what would go wrong and leaves nothing behind', async () => {
		await house.otium
			.db('room')
			.insert({ id: 'nook', site_id: 'quayside', name: 'Nook', seat_rows: 1, seats_per_row: 2 });
		expect(await save({ roomId: 'nook' })).toMatchObject({
			ok: false,
			message: expect.stringContaining('Too small. 3 candidates, 2 seats')
		});
		expect(await house.otium.db('session')).toHaveLength(1);
		expect(await house.otium.db('sitting')).toHaveLength(3);
	});

	it('takes people off whose group is no longer meant, with their untouched sittings', async () => {
		await house.otium.db('candidate_group').insert({ id: 'other', site_id: 'quayside', name: 'Watch B' });
		await house.otium
			.db('candidate')
			.insert({ id: 'b', number: 'DO-2000', number_folded: 'do2000', given: 'Bo', family: 'Bee', group_id: 'other' });
		const id = await saved({ groupIds: ['watch', 'other'] });
		expect(await house.otium.db('roster').where({ session_id: id })).toHaveLength(4);
		await saved({ groupIds: ['other'] }, { id, revision: 1 });
		expect(await house.otium.db('roster').where({ session_id: id })).toHaveLength(1);
		expect(await house.otium.db('sitting').where({ session_id: id })).toHaveLength(1);
	});

	it('refuses to rehearse with a paper that is still to count, and offers one that nobody owes', async () => {
		const refused = await save({ paperId: 'numbers', kind: 'rehearsal' });
		expect(refused).toMatchObject({
			ok: false,
			findings: expect.arrayContaining([
				expect.objectContaining({
					code: 'rehearsal_counts',
					fixes: [{ text: 'rehearse with Letters', set: { paperId: 'letters' } }]
				})
			])
		});
	});

	it('makes rehearsals that leave the real sittings alone, as often as wanted', async () => {
		await saved({ paperId: 'letters', kind: 'rehearsal' });
		await saved({ paperId: 'letters', kind: 'rehearsal', time: '16:00', until: '17:00' });
		const rows = await house.otium
			.db('sitting')
			.where({ candidate_id: 'can0' })
			.orderBy(['counts', 'attempt'])
			.select('counts', 'attempt');
		expect(rows).toEqual([
			{ counts: 0, attempt: 1 },
			{ counts: 0, attempt: 2 },
			{ counts: 1, attempt: 1 }
		]);
	});
});

describe('after the end', () => {
	it('a make-up takes those who were absent or carried over, who go on with their answers and their time', async () => {
		const epoch = await bringToWork(house, 0, await openDoor(house));
		await house.otium.answers.save('sit0', epoch, [
			{ seq: 1, questionId: 'q1', value: true, marked: false, struck: [], inViewMs: 1 }
		]);
		house.clock.at += 20 * MINUTE;
		await endSession(house.otium, 's1', PROCTOR);
		house.clock.at += 60 * MINUTE;
		const id = await saved({ paperId: 'numbers', kind: 'make_up', time: '11:00', until: '12:15' });
		expect((await sitting(0)).sitting).toMatchObject({ state: 'carried_over', sessionId: id });
		expect((await sitting(1)).sitting).toMatchObject({ state: 'expected', sessionId: id });

		house.sessionId = id;
		house.clock.at = Date.parse('2026-12-08T10:50:00Z');
		await arriveAt(house, 0, await openDoor(house), 'another-machine');
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'let_in' } }]);
		await begin(house.otium, 'sit0', nanoid(), '');
		expect((await sitting(0)).reckoning.remaining).toBe(40 * MINUTE);
		expect((await sitting(0)).answered).toBe(1);

		const old = (await findSession(house.otium.db, 's1'))!;
		const account = await accountFor(house.otium.db, old);
		expect(account.lines.map((line) => line.state)).toEqual(['carried_over', 'absent', 'absent']);
		expect(account.ledger.addsUp).toBe(true);
	});

	it('an own window that outlives the session keeps a code for that one alone, and ends by itself', async () => {
		await openDoor(house);
		await endSession(house.otium, 's1', PROCTOR);
		expect((await findSession(house.otium.db, 's1'))!.doorCode).toBeNull();
		const opens = Date.parse('2026-12-08T11:00:00Z');
		const own = { kind: 'own_window' as const, opens, closes: opens + 60 * MINUTE };
		await giveGrant(house.otium, COORDINATOR, nanoid(), {
			candidateId: 'can1',
			scope: { kind: 'session', id: 's1' },
			body: own,
			reason: 'ferry',
			givenBy: 'ode',
			givenAt: NINE
		});
		await sweep(house.otium);
		const { doorCode } = (await findSession(house.otium.db, 's1'))!;
		house.clock.at = opens;
		expect(await arriveAt(house, 0, doorCode!)).toMatchObject({ refusal: { code: 'session_ended' } });
		expect(await arriveAt(house, 1, doorCode!)).toMatchObject({ ok: true });
		house.clock.at = opens + 61 * MINUTE;
		await sweep(house.otium);
		expect((await sitting(1)).sitting.state).toBe('absent');
		expect((await findSession(house.otium.db, 's1'))!.doorCode).toBeNull();
	});

	it('a hand-in by mistake is reopened for that one, with answers and time as they were', async () => {
		const epoch = await bringToWork(house, 0, await openDoor(house));
		await house.otium.answers.save('sit0', epoch, [
			{ seq: 1, questionId: 'q1', value: true, marked: false, struck: [], inViewMs: 1 }
		]);
		house.clock.at += 10 * MINUTE;
		await act(house.otium, [
			{
				id: nanoid(),
				sittingId: 'sit0',
				by: { role: 'candidate', id: 'can0' },
				body: { kind: 'hand_in', receipt: 'R', reason: null }
			}
		]);
		house.clock.at += 5 * MINUTE;
		const reopen = (role: 'proctor' | 'coordinator') =>
			act(house.otium, [
				{ id: nanoid(), sittingId: 'sit0', by: { role, id: 'x' }, body: { kind: 'reopen', reason: 'by mistake' } }
			]);
		expect(await reopen('proctor')).toMatchObject([{ ok: false, refusal: { code: 'not_allowed' } }]);
		expect(await reopen('coordinator')).toMatchObject([{ ok: true }]);
		await begin(house.otium, 'sit0', nanoid(), '');
		expect((await sitting(0)).reckoning.remaining).toBe(50 * MINUTE);
		await house.otium.answers.save('sit0', epoch, [
			{ seq: 2, questionId: 'q2', value: true, marked: false, struck: [], inViewMs: 1 }
		]);
		expect((await sitting(0)).answered).toBe(2);
	});
});

describe('a grant foreseen', () => {
	it('says what it would do and what does not fit, and does nothing', async () => {
		await house.otium
			.db('session')
			.where({ id: 's1' })
			.update({
				rules: JSON.stringify({
					...(await findSession(house.otium.db, 's1'))!.rules,
					timing: { ...(await findSession(house.otium.db, 's1'))!.rules.timing, atClose: 'cut' }
				})
			});
		const grant = {
			candidateId: 'can0',
			scope: { kind: 'session', id: 's1' } as const,
			body: { kind: 'extra_time', factor: 1.5, minutes: 0 } as const,
			reason: '',
			givenBy: 'ode',
			givenAt: NINE
		};
		await house.otium.db('staff_role').insert({ staff_id: 'dunmore', role: 'proctor', site_id: 'quayside' });
		const { effects, look } = await foreseeGrants(house.otium.db, [grant], 'sit0', house.otium.now());
		expect(effects).toMatchObject([
			{
				before: '60 min, ends 10:15 at the latest',
				after: '60 + 30 = 90 min, ends 10:15 at the latest',
				misfits: ['The window 09:00 to 10:15 is 15 min too short: it cuts the time granted.']
			}
		]);
		expect(look).toMatchObject({
			minutes: 90,
			told: ['You have 90 minutes: 60, and 30 more for you.', expect.anything(), 'You sit in the Chart Room.']
		});
		// The session's own room has a proctor until the session's end; from then on somebody has to come.
		expect(look!.proposals[0]).toMatchObject({ opens: NINE, closes: NINE + 105 * MINUTE, room: { id: 'chart' } });
		expect(await house.otium.db('grant_given')).toEqual([]);
	});
});
