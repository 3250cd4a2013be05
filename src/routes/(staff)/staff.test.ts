import { nanoid } from 'nanoid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { StaffMember } from '$core/access';
import { MINUTE } from '$core/time';
import { blankInput } from '$lib/server/session';
import { loadSitting } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import { arriveAt, bringToWork, buildHouse, NINE, openDoor, type House } from '$lib/server/testing/house';
import { somebody } from '$lib/server/testing/staff';
import { GET as csv } from './close-out/[id]/results.csv/+server';
import { GET as find } from './grants/find/+server';
import { POST as foresee } from './grants/foresee/+server';
import { POST as give } from './grants/give/+server';
import { POST as withdraw } from './grants/withdraw/+server';
import { POST as act } from './live/[id]/act/+server';
import { GET as ending } from './live/[id]/ending/+server';
import { DELETE as takeBack, POST as minutes } from './live/[id]/minutes/+server';
import { POST as session } from './live/[id]/session/+server';
import { GET as one } from './live/[id]/sitting/[sitting]/+server';
import { GET as stream } from './live/[id]/stream/+server';
import { GET as verify } from './logbook/verify/+server';
import { POST as plan } from './prepare/plan/+server';
import { POST as save } from './prepare/save/+server';

let house: House;
let code: string;
beforeEach(async () => {
	house = await buildHouse();
	code = await openDoor(house);
});
afterEach(() => house.close());

const ODE = somebody('ode', 'coordinator', 'quayside');
const DUNMORE = somebody('dunmore', 'proctor', 'quayside');
const ask = (
	handler: unknown,
	body: unknown,
	staff: StaffMember | null = DUNMORE,
	params: Record<string, string> = { id: 's1' },
	query = ''
) => call(handler as never, { otium: house.otium, body, staff, params, query });
const sitting = async (i: number) => (await loadSitting(house.otium.db, `sit${i}`, house.otium.now()))!;

describe('who may', () => {
	const own = (sittingId = 'sit0') => ({
		id: nanoid(),
		sittingIds: [sittingId],
		what: { kind: 'minutes', minutes: 5 },
		scope: 'session',
		reason: 'asked'
	});
	const ROUTES: {
		name: string;
		handler: unknown;
		body: unknown;
		params?: Record<string, string>;
		allowed: string[];
	}[] = [
		{ name: 'stream', handler: stream, body: {}, allowed: ['ode', 'dunmore'] },
		{
			name: 'act',
			handler: act,
			body: { commandId: 'command-id', kind: 'mark_absent', sittingIds: ['sit2'] },
			allowed: ['ode', 'dunmore']
		},
		{
			name: 'minutes',
			handler: minutes,
			body: { id: 'minutes-id', sittingIds: ['sit0'], minutes: 1, reason: 'x' },
			allowed: ['ode', 'dunmore']
		},
		{ name: 'ending', handler: ending, body: {}, allowed: ['ode', 'dunmore'] },
		{
			name: 'one candidate',
			handler: one,
			body: {},
			params: { id: 's1', sitting: 'sit0' },
			allowed: ['ode', 'dunmore']
		},
		{ name: 'session', handler: session, body: { act: 'show_code' }, allowed: ['ode', 'dunmore'] },
		{ name: 'results', handler: csv, body: {}, allowed: ['ode', 'lorne'] },
		{ name: 'grant', handler: give, body: own(), allowed: ['ode'] },
		{ name: 'foresee', handler: foresee, body: own(), allowed: ['ode'] },
		{ name: 'plan', handler: plan, body: { input: {}, editing: null }, allowed: ['ode', 'elsewhere'] },
		{ name: 'verify', handler: verify, body: {}, allowed: ['ode', 'lorne', 'elsewhere'] }
	];
	const PEOPLE = [
		ODE,
		DUNMORE,
		somebody('finch', 'proctor', 'quayside'),
		somebody('lorne', 'closing_officer', null),
		somebody('elsewhere', 'coordinator', 'lighthouse')
	];

	it.each(ROUTES)('$name: $allowed, and nobody else', async ({ handler, body, params, allowed }) => {
		expect((await ask(handler, body, null, params)).status).toBe(401);
		for (const person of PEOPLE) {
			// A stream that is opened goes on: only its status matters here.
			const answer =
				handler === stream ? { status: (await openStream(person)).status } : await ask(handler, body, person, params);
			expect([person.id, answer.status < 400]).toEqual([person.id, allowed.includes(person.id)]);
			if (!allowed.includes(person.id)) expect(answer.status).toBe(403);
		}
	});

	async function openStream(staff: StaffMember): Promise<Response> {
		const event = {
			params: { id: 's1' },
			locals: { otium: house.otium, staff },
			request: new Request('http://localhost/'),
			url: new URL('http://localhost/')
		};
		const response = (await stream(event as never)) as Response;
		await response.body?.cancel();
		return response;
	}

	it('a session that is not there is 404 to everybody', async () => {
		expect((await ask(act, {}, ODE, { id: 'nowhere' })).status).toBe(404);
		expect((await ask(one, {}, ODE, { id: 's1', sitting: 'nobody' })).status).toBe(404);
	});
});

describe('acts', () => {
	it('on a selection are told one by one, those elsewhere counted, and a repeated request does nothing twice', async () => {
		await arriveAt(house, 0, code);
		await arriveAt(house, 1, code);
		const body = { commandId: 'one-command', kind: 'let_in', sittingIds: ['sit0', 'sit0', 'sit1', 'sit2', 'stranger'] };
		const first = await ask(act, body);
		const outcomes = first.body.outcomes as { sittingId: string; ok: boolean }[];
		expect(outcomes.map((outcome) => [outcome.sittingId, outcome.ok])).toEqual([
			['sit0', true],
			['sit1', true],
			['sit2', false]
		]);
		expect(first.body.elsewhere).toBe(1);
		expect((await ask(act, body)).body).toEqual(first.body);
		expect(await house.otium.db('logbook').where({ kind: 'let_in' })).toHaveLength(2);
	});

	it('want a reason where the rules do, and leave to coordinators what is theirs', async () => {
		await bringToWork(house, 0, code);
		const outcome = async (kind: string, staff: StaffMember, reason = '') => {
			const answer = await ask(act, { commandId: nanoid(), kind, sittingIds: ['sit0'], reason }, staff);
			const [first] = answer.body.outcomes as { ok: boolean; refusal?: { code: string } }[];
			return first.refusal?.code ?? 'done';
		};
		expect(await outcome('hold', DUNMORE)).toBe('reason_missing');
		expect(await outcome('hold', DUNMORE, 'out')).toBe('done');
		expect(await outcome('resume', DUNMORE)).toBe('done');
		expect(await outcome('set_aside', DUNMORE, 'spoilt')).toBe('not_allowed');
		expect(await outcome('set_aside', ODE, 'spoilt')).toBe('done');
		expect(await outcome('restore', ODE)).toBe('done');
		expect((await sitting(0)).sitting.state).toBe('working');
	});

	it('give minutes to one and to all, once each, and take them back', async () => {
		await bringToWork(house, 0, code);
		const base = (await sitting(0)).reckoning.deadline!;
		const some = await ask(minutes, {
			id: 'give-some-1',
			sittingIds: ['sit0', 'stranger'],
			minutes: 7,
			reason: 'line'
		});
		await ask(minutes, { id: 'give-some-1', sittingIds: ['sit0'], minutes: 7, reason: 'line' });
		const all = await ask(minutes, { id: 'give-all-1', sittingIds: null, minutes: 5, reason: 'alarm' });
		expect((await sitting(0)).reckoning.deadline! - base).toBe(12 * MINUTE);
		expect((await sitting(2)).reckoning.credits).toBe(5 * MINUTE);
		const grantIds = [...(some.body.grantIds as string[]), ...(all.body.grantIds as string[])];
		expect((await ask(takeBack, { grantIds })).body).toEqual({ withdrawn: 2 });
		expect((await ask(takeBack, { grantIds })).body).toEqual({ withdrawn: 0 });
		expect((await sitting(0)).reckoning.deadline).toBe(base);
		for (const bad of [0, 1.5, 241, 'ten', null])
			expect((await ask(minutes, { id: 'give-bad-1', sittingIds: null, minutes: bad, reason: 'x' })).status).toBe(400);
	});

	it('on the session: the code is shown, hidden and renewed; the end is foreseen, done once, and refused after', async () => {
		const row = () => house.otium.db('session').where({ id: 's1' }).first('door_code', 'code_hidden', 'ended_at');
		await ask(session, { act: 'show_code' });
		expect(Boolean((await row()).code_hidden)).toBe(false);
		await ask(session, { act: 'renew_code' });
		expect((await row()).door_code).not.toBe(code);
		expect((await ask(session, { act: 'start_room' })).body.message).toContain(
			'each clock starts when its candidate begins'
		);
		expect(JSON.parse((await ask(ending, {})).text)).toHaveLength(3);
		expect((await ask(session, { act: 'end' })).status).toBe(200);
		expect((await ask(session, { act: 'end' })).status).toBe(409);
		expect((await ask(minutes, { id: 'after-end-1', sittingIds: null, minutes: 5, reason: 'x' })).body.code).toBe(
			'session_over'
		);
		expect((await row()).door_code).toBeNull();
	});

	it('beside the room, one candidate’s time, history and questions', async () => {
		const epoch = await bringToWork(house, 0, code);
		await house.otium.answers.save('sit0', epoch, [
			{ seq: 1, questionId: 'q2', value: true, marked: true, struck: [], inViewMs: 4_000 }
		]);
		const { body } = await ask(one, {}, DUNMORE, { id: 's1', sitting: 'sit0' });
		expect((body.history as { kind: string }[]).map((entry) => entry.kind)).toEqual([
			'arrived',
			'let_in',
			'began',
			'clock_started'
		]);
		expect(
			(body.questions as { answered: boolean; inViewMs: number }[]).filter((question) => question.answered)
		).toMatchObject([{ marked: true, inViewMs: 4_000 }]);
		expect((body.time as { words: string }).words).toBe('60 min, ends 10:00');
	});
});

describe('grants', () => {
	const grant = (what: object, change: object = {}) => ({
		id: nanoid(),
		sittingIds: ['sit0'],
		what,
		scope: 'session',
		reason: 'access office',
		...change
	});

	it('are found by any part of name, number or group, told, given once and withdrawn once', async () => {
		const found = JSON.parse((await ask(find, {}, ODE, {}, '?text=given0%20watch')).text);
		expect(found.people.map((line: { number: string }) => line.number)).toEqual(['DO-1001']);
		expect(JSON.parse((await ask(find, {}, ODE, {}, '?text=%25')).text)).toEqual({ people: [], groups: [] });
		expect(JSON.parse((await ask(find, {}, ODE, {}, '?text=')).text)).toEqual({ people: [], groups: [] });

		const body = grant({ kind: 'factor', factor: 1.5 });
		expect(JSON.parse((await ask(foresee, body, ODE)).text).effects[0]).toMatchObject({
			before: '60 min, ends 10:15 at the latest',
			after: '60 + 30 = 90 min, ends 10:45 at the latest'
		});
		await ask(give, body, ODE);
		await ask(give, body, ODE);
		expect(await house.otium.db('grant_given')).toHaveLength(1);
		expect((await sitting(0)).reckoning.allotted).toBe(90 * MINUTE);
		expect((await ask(withdraw, { id: body.id, sittingId: 'sit1' }, ODE)).status).toBe(404);
		expect((await ask(withdraw, { id: body.id, sittingId: 'sit0' }, ODE)).status).toBe(200);
		expect((await ask(withdraw, { id: body.id, sittingId: 'sit0' }, ODE)).body.code).toBe('already');
		expect((await sitting(0)).reckoning.allotted).toBe(60 * MINUTE);
	});

	it.each([
		[{ kind: 'factor', factor: 1 }, 400, 'A factor above 1'],
		[{ kind: 'factor', factor: 11 }, 400, 'at most 10'],
		[{ kind: 'minutes', minutes: 2.5 }, 400, 'whole minutes'],
		[{ kind: 'own_window', date: '2026-12-08', opens: '11:00', closes: '10:00' }, 422, 'closes before it opens'],
		[{ kind: 'own_window', date: '2026-12-07', opens: '11:00', closes: '12:00' }, 422, 'over already'],
		[{ kind: 'own_window', date: '2027-03-28', opens: '01:15', closes: '03:00' }, 422, 'clocks jump over'],
		[{ kind: 'own_window', date: '2026-12-08', opens: '9:00', closes: '12:00' }, 400, 'Give a time, like 09:30']
	])('%o is refused with %i: %s', async (what, status, words) => {
		const answer = await ask(give, grant(what), ODE);
		expect([answer.status, answer.body.message]).toEqual([status, expect.stringContaining(words)]);
		expect(await house.otium.db('grant_given')).toEqual([]);
	});

	it('given by two officers at once are told to the second, who may mean it all the same', async () => {
		const seen = { seen: [] };
		expect((await ask(give, grant({ kind: 'minutes', minutes: 10 }, seen), ODE)).status).toBe(200);
		const second = grant({ kind: 'minutes', minutes: 10 }, seen);
		expect((await ask(give, second, ODE)).body).toMatchObject({
			code: 'changed_meanwhile',
			message: 'Meanwhile somebody has given: 10 minutes more.'
		});
		expect(await house.otium.db('grant_given')).toHaveLength(1);
		expect((await ask(give, { ...second, seen: null }, ODE)).status).toBe(200);
		expect((await sitting(0)).reckoning.allotted).toBe(80 * MINUTE);
	});

	it('want a reason, and an own window is for one session', async () => {
		expect((await ask(give, grant({ kind: 'minutes', minutes: 5 }, { reason: ' ' }), ODE)).body.code).toBe(
			'reason_missing'
		);
		const own = grant(
			{ kind: 'own_window', date: '2026-12-08', opens: '11:00', closes: '12:00' },
			{ scope: 'standing' }
		);
		expect((await ask(give, own, ODE)).body.message).toContain('for one session');
	});
});

describe('preparing', () => {
	it('answers each field that can’t be read with a sentence of its own', async () => {
		const input = {
			...blankInput('Europe/London', NINE),
			date: '8 December',
			time: '9am',
			rules: { timing: { limitMinutes: 'sixty' } },
			groupIds: []
		};
		const { body } = await ask(plan, { input, editing: null }, ODE);
		expect(body.errors).toMatchObject({
			paperId: 'Choose a paper.',
			groupIds: 'Choose at least one group.',
			date: 'Give a date, like 2026-12-08.',
			time: 'Give a time, like 09:30.',
			'rules.timing.limitMinutes': 'Limit: a whole number, or empty for no limit.'
		});
		expect((await ask(save, { input, edit: null }, ODE)).status).toBe(422);
	});

	it('saves for a site that is one’s own only', async () => {
		const input = {
			...blankInput('Europe/London', NINE),
			paperId: 'letters',
			groupIds: ['watch'],
			roomId: 'chart',
			date: '2026-12-08',
			time: '15:00',
			until: '16:15'
		};
		const { content } = await house.otium.db('paper').first('content');
		await house.otium.db('paper').insert({ id: 'letters', title: 'Letters', version: 1, content });
		await house.otium.db('paper_allowed').insert({ administration_id: 'winter', paper_id: 'letters' });
		expect((await ask(save, { input, edit: null }, somebody('x', 'coordinator', 'lighthouse'))).status).toBe(403);
		expect((await ask(save, { input, edit: null }, DUNMORE)).status).toBe(403);
		expect((await ask(save, { input, edit: null }, ODE)).body).toMatchObject({
			names: ['Letters · Watch A · 8 Dec']
		});
	});
});
