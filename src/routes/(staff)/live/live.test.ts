import { nanoid } from 'nanoid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { StaffMember } from '$core/access';
import type { Incident } from '$core/incident';
import type { CoursePoint, GridRow } from '$core/room';
import { DEFAULT_RULES } from '$core/session';
import { MINUTE } from '$core/time';
import { openRefusals } from '$lib/server/door';
import { drawRoom, drawSitting } from '$lib/server/live';
import { verifyLogbook } from '$lib/server/logbook';
import { act, loadSitting } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import { arriveAt, bringToWork, buildHouse, NINE, openDoor, PROCTOR, type House } from '$lib/server/testing/house';
import { somebody } from '$lib/server/testing/staff';
import { POST as hand } from '../../sit/api/hand/+server';
import { POST as knock } from '../../sit/api/knock/+server';
import { POST as lapses } from '../../sit/api/lapses/+server';
import { POST as read } from '../../sit/api/messages/+server';
import { load as room } from './[id]/+page.server';
import { GET as grid } from './[id]/answers/+server';
import { GET as chart } from './[id]/chart/+server';
import { POST as door } from './[id]/door/+server';
import { POST as lower } from './[id]/hand/+server';
import { DELETE as takeBack, GET as listed, POST as tell } from './[id]/incidents/+server';
import { GET as attachment } from './[id]/incidents/[incident]/+server';
import { POST as message } from './[id]/message/+server';
import { GET as proctors, POST as handOver } from './[id]/proctors/+server';
import { POST as seat } from './[id]/seat/+server';
import { POST as sessionAct } from './[id]/session/+server';

let house: House;
let code: string;
afterEach(() => house.close());

const ODE = somebody('ode', 'coordinator', 'quayside');
const DUNMORE = somebody('dunmore', 'proctor', 'quayside');
const ask = (
	handler: unknown,
	body: unknown = {},
	staff: StaffMember | null = DUNMORE,
	more: Record<string, string> = {},
	query = ''
) => call(handler as never, { otium: house.otium, body, staff, params: { id: 's1', ...more }, query });
const fromDevice = (handler: unknown, i: number, body: unknown) =>
	call(handler as never, { otium: house.otium, body, device: { sittingId: `sit${i}`, epoch: 1 } });
const sitting = async (i: number) => (await loadSitting(house.otium.db, `sit${i}`, house.otium.now()))!;
const seats = async () => (await drawRoom(house.otium.db, 's1', house.otium.now()))!.seats;
const answer = (i: number, seq: number, questionId: string, value: unknown = true, inViewMs = 20_000) =>
	house.otium.answers.save(`sit${i}`, 1, [
		{ seq, questionId, value: value as never, marked: false, struck: [], inViewMs }
	]);

describe('who may, in the live room', () => {
	const incident = { id: 'incident-1', kind: 'alarm', happenedAt: NINE, note: 'Alarm', sittingIds: [] };
	const ROUTES: [string, unknown, unknown, Record<string, string>?][] = [
		['message', message, { commandId: 'message-1', sittingIds: ['sit0'], text: 'Hello' }],
		['hand', lower, { sittingIds: ['sit0'] }],
		['door', door, { refusalId: 'x', act: 'seen' }],
		['incidents', tell, incident],
		['the list of incidents', listed, {}],
		['taking back', takeBack, { id: 'incident-1' }],
		['an attachment', attachment, {}, { incident: 'incident-1' }],
		['grid', grid, {}],
		['chart', chart, {}],
		['seat', seat, { sittingId: 'sit0', seat: 'B1' }],
		['proctors', proctors, {}],
		['handing over', handOver, { staffId: 'ode' }]
	];
	it.each(ROUTES)('%s: nobody signed out, from elsewhere, or of another role', async (_, handler, body, params) => {
		house = await buildHouse();
		expect((await ask(handler, body, null, params)).status).toBe(401);
		expect((await ask(handler, body, somebody('x', 'proctor', 'elsewhere'), params)).status).toBe(403);
		expect((await ask(handler, body, somebody('x', 'grants_officer', 'quayside'), params)).status).toBe(403);
		expect((await ask(handler, body, DUNMORE, { ...params, id: 'nowhere' })).status).toBe(404);
	});
});

describe('messages and hands', () => {
	beforeEach(async () => {
		house = await buildHouse();
		code = await openDoor(house);
		for (const i of [0, 1]) await bringToWork(house, i, code);
	});

	it('reaches those it names, once, and tells the proctor when it was read', async () => {
		const body = { commandId: 'message-1', sittingIds: ['sit0', 'sit1', 'nobody'], text: 'Ten minutes more.' };
		expect((await ask(message, body)).body).toEqual({ sent: 2 });
		expect((await ask(message, body)).status).toBe(200);
		const picture = await drawSitting(house.otium.db, 'sit0', house.otium.now());
		expect(picture.messages.map((one) => one.text)).toEqual(['Ten minutes more.']);
		expect((await seats()).map((one) => one.unread?.count ?? 0)).toEqual([1, 1, 0]);
		await fromDevice(read, 0, { seen: picture.messages.map((one) => one.id) });
		expect((await seats()).map((one) => one.unread?.count ?? 0)).toEqual([0, 1, 0]);
		expect((await drawSitting(house.otium.db, 'sit0', house.otium.now())).messages).toEqual([]);
	});

	it('nobody reads another’s messages away', async () => {
		await ask(message, { commandId: 'message-1', sittingIds: ['sit0'], text: 'For you' });
		const [{ id }] = (await drawSitting(house.otium.db, 'sit0', house.otium.now())).messages;
		await fromDevice(read, 1, { seen: [id] });
		expect((await seats())[0].unread?.count).toBe(1);
	});

	it('a hand goes up once, changes its words, and is answered by coming or by a message', async () => {
		await fromDevice(hand, 0, { up: true, text: '' });
		await fromDevice(hand, 0, { up: true, text: 'My mouse' });
		expect((await seats())[0].hand?.text).toBe('My mouse');
		expect(await house.otium.db('message').where({ from_candidate: 1 })).toHaveLength(1);
		await ask(lower, { sittingIds: ['sit0'] });
		expect((await seats())[0].hand).toBeNull();
		await fromDevice(hand, 1, { up: true, text: '' });
		await ask(message, { commandId: 'message-2', sittingIds: ['sit1'], text: 'I am coming' });
		expect((await seats())[1].hand).toBeNull();
		await fromDevice(hand, 1, { up: true, text: '' });
		await fromDevice(hand, 1, { up: false });
		expect((await seats())[1].hand).toBeNull();
	});

	it('words are needed, and not too many', async () => {
		for (const text of ['', '   ', 'x'.repeat(501)])
			expect((await ask(message, { commandId: 'message-3', sittingIds: ['sit0'], text })).status).toBe(400);
	});
});

describe('leaving the screen', () => {
	const lockdown = (onLeaving: 'warn' | 'hold' | 'hand_in', leavingsAllowed = 1) => ({
		rules: { lockdown: { ...DEFAULT_RULES.lockdown, level: 'watched' as const, onLeaving, leavingsAllowed } }
	});
	const leave = (id: string, at: number, ms: number | null) =>
		fromDevice(lapses, 0, {
			lapses: [{ id: `lapse-${id}`, kind: 'left', from: at, to: ms === null ? null : at + ms }]
		});
	const open = async (change: ReturnType<typeof lockdown>) => {
		house = await buildHouse(change);
		await bringToWork(house, 0, await openDoor(house));
	};

	it('is shown while it lasts, and afterwards with its length, as one', async () => {
		await open(lockdown('warn'));
		const at = house.otium.now();
		await leave('one', at, null);
		expect((await seats())[0].lapses).toMatchObject({ left: 1, awaySince: at });
		house.clock.at += 9_000;
		await leave('one', at, 9_000);
		await leave('one', at, 1);
		expect((await seats())[0].lapses).toMatchObject({ left: 1, awaySince: null });
		expect(await house.otium.db('lapse').pluck('to_at')).toEqual([at + 9_000]);
	});

	it.each([
		['hold', 'on_hold'],
		['hand_in', 'handed_in'],
		['warn', 'working']
	] as const)('once more than allowed: %s makes it %s', async (onLeaving, state) => {
		await open(lockdown(onLeaving));
		await leave('one', house.otium.now(), 2_000);
		expect((await sitting(0)).sitting.state).toBe('working');
		house.clock.at += 60_000;
		await leave('two', house.otium.now(), 2_000);
		expect((await sitting(0)).sitting.state).toBe(state);
	});

	it('a proctor who resumes begins the count anew', async () => {
		await open(lockdown('hold', 0));
		await leave('one', house.otium.now(), 2_000);
		house.clock.at += 60_000;
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'resume' } }]);
		expect((await sitting(0)).sitting.state).toBe('working');
		// What the device tells again, or late, was before: it is no reason to hold once more.
		await leave('late', house.otium.now() - 50_000, 3_000);
		expect((await sitting(0)).sitting.state).toBe('working');
		house.clock.at += 60_000;
		await leave('two', house.otium.now(), 2_000);
		expect((await sitting(0)).sitting.state).toBe('on_hold');
	});

	it('a device’s clock that runs ahead changes nothing', async () => {
		await open(lockdown('warn'));
		await leave('one', house.otium.now() + 9 * 3_600_000, 2_000);
		expect(await house.otium.db('lapse').pluck('from_at')).toEqual([house.otium.now()]);
	});
});

describe('incidents', () => {
	const alarm = (more = {}) => ({
		id: 'incident-1',
		kind: 'alarm',
		happenedAt: NINE,
		note: 'Fire alarm',
		minutes: 7,
		sittingIds: ['sit0', 'sit1'],
		...more
	});
	beforeEach(async () => {
		house = await buildHouse();
		code = await openDoor(house);
		for (const i of [0, 1]) await bringToWork(house, i, code);
	});

	it('gives the lost time back to everyone in it, once, in the same act, and takes it away with it', async () => {
		const before = (await sitting(0)).reckoning.deadline!;
		for (const _ of [1, 2]) expect((await ask(tell, alarm())).status).toBe(200);
		expect((await sitting(0)).reckoning.deadline).toBe(before + 7 * MINUTE);
		const { incidents } = (await ask(listed)).body as { incidents: Incident[] };
		expect(incidents).toHaveLength(1);
		expect(incidents[0]).toMatchObject({ kind: 'alarm', minutes: 7, toldBy: 'Rhys Dunmore', attachment: null });
		expect(incidents[0].people.map((person) => person.name).sort()).toEqual(['Given0 Family0', 'Given1 Family1']);
		expect((await ask(takeBack, { id: 'incident-1' })).body).toMatchObject({ withdrawn: true, incidents: [] });
		expect((await ask(takeBack, { id: 'incident-1' })).body).toMatchObject({ withdrawn: false });
		expect((await sitting(0)).reckoning.deadline).toBe(before);
		expect(await verifyLogbook(house.otium.db)).toMatchObject({ broken: null });
	});

	it('sent again with other people, minutes or by somebody else, it gives what was told first and nothing more', async () => {
		const before = (await sitting(0)).reckoning.deadline!;
		expect((await ask(tell, alarm({ minutes: 1, sittingIds: ['sit1'] }))).status).toBe(200);
		expect((await ask(tell, alarm({ minutes: 240 }))).status).toBe(200);
		expect((await ask(tell, alarm(), somebody('finch', 'site_proctor', 'quayside'))).status).toBe(403);
		expect((await sitting(0)).reckoning.deadline).toBe(before);
		expect(await house.otium.db('grant_given').pluck('id')).toEqual(['incident-1:sit1']);
	});

	it('a report is of whoever told it: another proctor can’t make it go, a coordinator can, and nobody once it is decided', async () => {
		const other = somebody('finch', 'site_proctor', 'quayside');
		expect((await ask(tell, alarm())).status).toBe(200);
		const refused = await ask(takeBack, { id: 'incident-1' }, other);
		expect([refused.status, (refused.body as { message: string }).message]).toEqual([
			403,
			'Somebody else reported this incident.'
		]);
		const decision = { id: 'd', incident_id: 'incident-1', decision: 'none', note: '', by: 'ode', at: NINE };
		await house.otium.db('incident_decision').insert(decision);
		expect((await ask(takeBack, { id: 'incident-1' }, ODE)).status).toBe(422);
		await house.otium.db('incident_decision').where({ id: 'd' }).delete();
		expect((await ask(takeBack, { id: 'incident-1' }, ODE)).body).toMatchObject({ withdrawn: true });
	});

	it('keeps an attachment and gives it back byte for byte, as a download', async () => {
		const base64 = Buffer.from('what was seen').toString('base64');
		const file = { name: 'näch “1”.txt', type: 'text/plain', base64 };
		expect((await ask(tell, alarm({ attachment: file }))).status).toBe(200);
		const got = await ask(attachment, {}, DUNMORE, { incident: 'incident-1' });
		expect([got.status, got.text]).toEqual([200, 'what was seen']);
		expect(got.headers.get('content-disposition')).toMatch(/^attachment; filename\*=UTF-8''n%C3%A4ch/);
		expect((await ask(attachment, {}, DUNMORE, { incident: '../otium.sqlite' })).status).toBe(404);
	});

	it.each([
		['no words', { note: ' ' }, 400],
		['part of a minute', { minutes: 1.5 }, 400],
		['an id that could be a path', { id: '../../etc/passwd' }, 400],
		['a page as an attachment', { attachment: { name: 'a.html', type: 'text/html', base64: 'PGI+' } }, 422],
		['a file too large', { attachment: { name: 'a', type: 'text/plain', base64: 'A'.repeat(990_000) } }, 422]
	])('%s is refused and leaves nothing', async (_, more, status) => {
		expect((await ask(tell, alarm(more))).status).toBe(status);
		expect(await house.otium.db('incident')).toEqual([]);
		expect(await house.otium.db('grant_given')).toEqual([]);
	});
});

describe('who is refused at the door', () => {
	beforeEach(async () => {
		house = await buildHouse();
		code = await openDoor(house);
	});
	const knockAs = (number: string, family: string) =>
		call(knock, { otium: house.otium, body: { code, number, family, deviceName: 'Tablet' } });
	const lines = () => openRefusals(house.otium.db, 's1', house.otium.now());
	const stranger = () =>
		house.otium.db('candidate').insert({
			id: 'canX',
			number: 'DO-9',
			number_folded: 'do9',
			given: 'Xi',
			family: 'Stray',
			group_id: 'watch'
		});

	it('wrong details are one line that counts, and never say which part was wrong', async () => {
		for (const family of ['Wrong', 'Again'])
			expect((await knockAs('DO-1001', family)).body.code).toBe('identity_unknown');
		expect(await lines()).toMatchObject([{ code: 'identity_unknown', tries: 2, candidate: null, device: 'Tablet' }]);
	});

	it('shows how long wrong tries have to wait, and one act of the proctor lets them try again at once', async () => {
		for (let i = 0; i < 6; i++) await knockAs('DO-1001', 'Wrong');
		const [line] = await lines();
		// The sixth miss is the first that waits: two seconds, then four, then eight.
		expect(line).toMatchObject({ tries: 6, waitsUntil: house.clock.at + 2_000 });
		expect((await knockAs('DO-1001', 'Family0')).status).toBe(429);
		expect((await ask(door, { refusalId: line.id, act: 'forgive' })).status).toBe(200);
		expect((await knockAs('DO-1001', 'Family0')).body).toMatchObject({ name: 'Given0 Family0' });
		expect(await lines()).toEqual([]);
	});

	it('whoever tries one name after another is one line, and shuts nobody else out', async () => {
		for (let i = 0; i < 21; i++) expect((await knockAs(`DO-9${i}`, 'Guess')).body.code).toBe('identity_unknown');
		expect(await lines()).toMatchObject([{ tries: 21 }]);
		expect((await knockAs('DO-1001', 'Family0')).status).toBe(200);
	});

	it('somebody who is known and not on the list is named to the proctor, and a coordinator adds them by one act', async () => {
		await stranger();
		expect((await knockAs('DO-9', 'stray')).body).toMatchObject({ code: 'not_on_list' });
		const [line] = await lines();
		expect(line).toMatchObject({ code: 'not_on_list', candidate: { name: 'Xi Stray' } });
		const add = { refusalId: line.id, act: 'add' };
		expect((await ask(door, add)).status).toBe(403);
		expect((await ask(door, add, ODE)).status).toBe(200);
		expect((await ask(door, add, ODE)).status).toBe(404);
		expect((await knockAs('DO-9', 'stray')).body).toMatchObject({ name: 'Xi Stray', seat: 'A4' });
		expect((await seats()).map((one) => one.name)).toContain('Xi Stray');
		expect(await lines()).toEqual([]);
	});

	it('nobody is added past what was allotted, and it is said who it is and who can allot more', async () => {
		await stranger();
		await house.otium.db('entitlement').insert({ administration_id: 'winter', site_id: 'quayside', count: 3 });
		await knockAs('DO-9', 'stray');
		const [line] = await lines();
		const refused = await ask(door, { refusalId: line.id, act: 'add' }, ODE);
		expect(refused.status).toBe(409);
		expect(refused.body.message).toBe('No sitting is left at Quayside for Xi Stray.');
		expect(refused.body.instead).toContain('can allot more');
		expect((await seats()).map((one) => one.name)).not.toContain('Xi Stray');
		await house.otium.db('entitlement').update({ count: 4 });
		expect((await ask(door, { refusalId: line.id, act: 'add' }, ODE)).status).toBe(200);
	});

	it('a tablet is refused where the rules allow none, told to the proctor, and a computer is not', async () => {
		const knockWith = (deviceName: string) =>
			call(knock, {
				otium: house.otium,
				body: { code, number: 'DO-1001', family: 'Family0', deviceName }
			});
		const set = (level: string, tablets: boolean) =>
			house.otium.db('session').update({
				rules: house.otium.db.raw("json_set(rules, '$.lockdown.level', ?, '$.lockdown.tablets', json(?))", [
					level,
					String(tablets)
				])
			});
		await set('watched', false);
		expect((await knockWith('iPad, Safari')).body).toMatchObject({ code: 'no_tablets' });
		expect(await lines()).toMatchObject([{ code: 'no_tablets', sittingId: 'sit0', device: 'iPad, Safari' }]);
		expect((await knockWith('Mac, Safari')).status).toBe(200);
		await set('watched', true);
		expect((await knockWith('iPad, Safari')).status).toBe(200);
		await set('open', false);
		expect((await knockWith('Android, Chrome')).status).toBe(200);
	});

	it('somebody who is expected elsewhere is told where', async () => {
		await stranger();
		await house.otium.db('session').insert({
			...(await house.otium.db('session').where({ id: 's1' }).first()),
			id: 's2',
			door_code: null,
			opens: NINE + 120 * MINUTE
		});
		await house.otium.db('sitting').insert({
			...(await house.otium.db('sitting').where({ id: 'sit0' }).first()),
			id: 'sitX',
			candidate_id: 'canX',
			session_id: 's2'
		});
		expect((await knockAs('DO-9', 'Stray')).body.message).toBe(
			'You are expected elsewhere: Numbers in the Chart Room, 11:00.'
		);
		expect(await lines()).toMatchObject([{ code: 'wrong_session' }]);
	});

	it('whoever comes after the last entry is let in by one act, and nobody else with them', async () => {
		house.clock.at = NINE + 20 * MINUTE;
		const late = await arriveAt(house, 0, code);
		expect(late).toMatchObject({ ok: false, refusal: { code: 'past_last_entry' } });
		const [line] = await lines();
		expect(line).toMatchObject({ code: 'past_last_entry', sittingId: 'sit0' });
		expect((await ask(door, { refusalId: line.id, act: 'admit' })).status).toBe(200);
		expect((await arriveAt(house, 0, code)).ok).toBe(true);
		expect((await arriveAt(house, 1, code)).ok).toBe(false);
	});
});

describe('seats and handing over', () => {
	beforeEach(async () => {
		house = await buildHouse();
	});

	it('who moves to a taken seat changes places, and a seat that is not there is refused', async () => {
		expect((await ask(seat, { sittingId: 'sit0', seat: 'A2' })).body).toEqual({
			ok: true,
			from: 'A1',
			exchangedWith: 'sit1'
		});
		expect((await seats()).map((one) => [one.id, one.seat])).toEqual([
			['sit1', 'A1'],
			['sit0', 'A2'],
			['sit2', 'A3']
		]);
		expect((await ask(seat, { sittingId: 'sit0', seat: 'Z9' })).status).toBe(409);
		await house.otium.db('room').update({ plan: JSON.stringify({ outOfUse: ['B1'], apart: [] }) });
		expect((await ask(seat, { sittingId: 'sit0', seat: 'B1' })).body.message).toContain('out of use');
		expect((await seats())[1].seat).toBe('A2');
	});

	it('the next proctor is on the list before the first is off it', async () => {
		await house.otium.db('staff_role').insert([
			{ staff_id: 'ode', role: 'coordinator', site_id: null },
			{ staff_id: 'dunmore', role: 'proctor', site_id: 'quayside' }
		]);
		expect((await ask(proctors)).body.proctors).toMatchObject([
			{ id: 'dunmore', isHere: true },
			{ id: 'ode', isHere: false }
		]);
		expect((await ask(handOver, { staffId: 'nobody' })).status).toBe(404);
		expect((await ask(handOver, { staffId: 'ode', note: 'Rook is late' })).status).toBe(200);
		expect(await house.otium.db('session_proctor').pluck('staff_id')).toEqual(['ode']);
	});
});

describe('a session that has ended', () => {
	it('is still read by the proctor who supervised it, and by nobody of another site', async () => {
		house = await buildHouse();
		await bringToWork(house, 0, await openDoor(house));
		expect((await ask(sessionAct, { act: 'end' }, ODE)).status).toBe(200);
		const page = async (staff: StaffMember) =>
			room({
				params: { id: 's1' },
				locals: { otium: house.otium, staff, staffSession: null },
				url: new URL('http://localhost/live/s1'),
				cookies: { get: () => undefined }
			} as never);
		expect(await page(DUNMORE)).toMatchObject({ picture: { seats: { length: 3 } } });
		await expect(page(somebody('far', 'proctor', 'lighthouse'))).rejects.toMatchObject({ status: 403 });
	});
});

describe('the grid and the chart', () => {
	it('say who has answered what, and what was changed, and never the answer', async () => {
		house = await buildHouse();
		code = await openDoor(house);
		for (const i of [0, 1]) await bringToWork(house, i, code);
		await answer(0, 1, 'q1', true);
		await answer(0, 2, 'q1', false);
		await answer(0, 3, 'q2', true);
		await answer(0, 4, 'q2', null);
		const got = await ask(grid);
		const rows = got.body.rows as GridRow[];
		const first = rows.find((row) => row.sittingId === 'sit0')!;
		expect(first.cells.filter((cell) => cell.answered)).toEqual([{ answered: true, marked: false, changed: true }]);
		expect(rows.find((row) => row.sittingId === 'sit1')!.cells.some((cell) => cell.answered)).toBe(false);
		expect(got.text).not.toContain('value');
		expect((await ask(grid, {}, DUNMORE, {}, '?only=sit1')).body.rows).toHaveLength(1);

		house.clock.at += 3 * MINUTE;
		await act(house.otium, [
			{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'hand_in', receipt: 'R-1', reason: null } }
		]);
		const points = (await ask(chart)).body.points as CoursePoint[];
		expect(points[0]).toMatchObject({ working: 2, done: 0, answers: 4 });
		expect(points.at(-1)).toMatchObject({ working: 1, done: 1, answers: 0 });
		expect(points.map((point) => point.at - points[0].at)).toEqual([0, 1, 2, 3].map((n) => n * MINUTE));
	});
});

describe('pace', () => {
	const open = async (holds: boolean) => {
		house = await buildHouse({ rules: { pace: { watched: true, holds } } });
		await bringToWork(house, 0, await openDoor(house));
	};
	const rush = async (from: number, count: number) => {
		for (let i = from; i < from + count; i++) {
			house.clock.at += 30_000;
			await answer(0, i, `q${i}`, true, 500);
		}
		await house.otium.pace.sweep();
	};

	it('is told to the room from the time in view', async () => {
		await open(false);
		house.clock.at += 30_000;
		await answer(0, 1, 'q1', true, 20_000);
		await house.otium.pace.sweep();
		expect((await seats())[0]).toMatchObject({ pace: 'calm', rapid: 0 });
		await rush(2, 1);
		expect((await seats())[0]).toMatchObject({ pace: 'watch', rapid: 1 });
		await rush(3, 1);
		expect((await seats())[0]).toMatchObject({ pace: 'spoiled', rapid: 2 });
		expect((await sitting(0)).sitting.state).toBe('working');
	});

	it('holds after five in a row where the rules say so, and once resumed not again for the same five', async () => {
		await open(true);
		await rush(1, 4);
		expect((await sitting(0)).sitting.state).toBe('working');
		await rush(5, 1);
		expect((await sitting(0)).sitting).toMatchObject({
			state: 'on_hold',
			reason: expect.stringContaining('Five answers')
		});
		await act(house.otium, [{ id: nanoid(), sittingId: 'sit0', by: PROCTOR, body: { kind: 'resume' } }]);
		await rush(6, 1);
		expect((await sitting(0)).sitting.state).toBe('working');
	});
});

describe('a paper that does not go back', () => {
	const movement = { ...DEFAULT_RULES.movement, goingBack: false };
	it('takes no answer to a page before: it is kept, and what stood stands', async () => {
		const order = { ...DEFAULT_RULES.order, questionsInOwnOrder: false, choicesInOwnOrder: false };
		house = await buildHouse({ rules: { movement, order } });
		await bringToWork(house, 0, await openDoor(house));
		expect((await answer(0, 1, 'q1', true)).kept).toBeNull();
		expect((await answer(0, 2, 'q3', true)).kept).toBeNull();
		expect((await answer(0, 3, 'q1', false)).kept).toBe('gone_past');
		expect((await answer(0, 3, 'q1', false)).kept).toBeNull();
		expect((await answer(0, 4, 'q3', false)).kept).toBeNull();
		const standing = await house.otium.db('answer_standing').orderBy('question_id').select('question_id', 'seq');
		expect(standing).toEqual([
			{ question_id: 'q1', seq: 1 },
			{ question_id: 'q3', seq: 4 }
		]);
		expect(await house.otium.db('answer')).toHaveLength(4);
	});

	it('in pages, the page is what is passed', async () => {
		const order = { ...DEFAULT_RULES.order, questionsInOwnOrder: false, choicesInOwnOrder: false };
		house = await buildHouse({ rules: { movement: { ...movement, shown: 'pages', perPage: 3 }, order } });
		await bringToWork(house, 0, await openDoor(house));
		expect((await answer(0, 1, 'q3')).kept).toBeNull();
		expect((await answer(0, 2, 'q1')).kept).toBeNull();
		expect((await answer(0, 3, 'q4')).kept).toBeNull();
		expect((await answer(0, 4, 'q3')).kept).toBe('gone_past');
	});
});
