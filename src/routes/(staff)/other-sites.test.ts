import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { StaffMember } from '$core/access';
import { giveGrant } from '$lib/server/grants';
import { searchLogbook } from '$lib/server/logbook';
import { findSession, inputOf } from '$lib/server/session';
import { act } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import {
	arriveAt,
	buildHouse,
	COORDINATOR,
	makeUpInput,
	NINE,
	openDoor,
	PAPER,
	type House
} from '$lib/server/testing/house';
import { somebody } from '$lib/server/testing/staff';
import { load as logbookPage } from './logbook/+page.server';
import { load as newSession } from './prepare/new/+page.server';
import { POST as foresee } from './grants/foresee/+server';
import { POST as give } from './grants/give/+server';
import { POST as withdraw } from './grants/withdraw/+server';
import { POST as door } from './live/[id]/door/+server';
import { DELETE as takeBack, POST as minutes } from './live/[id]/minutes/+server';
import { POST as mail } from './prepare/mail/+server';
import { POST as person } from './prepare/people/[id]/+server';
import { POST as plan } from './prepare/plan/+server';
import { POST as save } from './prepare/save/+server';
import { POST as staffRoute } from './prepare/staff/+server';
import { load as you } from './you/+page.server';

/** Two sites. Quayside has the house's session and its three people; Lighthouse Point has one room, one group, one person. */
let house: House;
beforeEach(async () => {
	house = await buildHouse();
	const { db } = house.otium;
	await db('site').insert({ id: 'lighthouse', name: 'Lighthouse Point', zone: 'Europe/London' });
	await db('room').insert({ id: 'lamp', site_id: 'lighthouse', name: 'Lamp Room', seat_rows: 4, seats_per_row: 4 });
	await db('candidate_group').insert({ id: 'azores', site_id: 'lighthouse', name: 'Azores' });
	await db('candidate').insert({
		id: 'nuno',
		number: 'LP-1',
		number_folded: 'lp1',
		given: 'Nuno',
		family: 'Faria',
		group_id: 'azores'
	});
	// A paper that nobody at Quayside is to sit yet.
	await db('paper').insert({ id: 'signals', title: 'Signals', version: 1, content: JSON.stringify(PAPER) });
	await db('paper_allowed').insert({ administration_id: 'winter', paper_id: 'signals' });
	for (const { id, roles } of [LIGHT, LIGHT_GRANTS]) {
		await db('staff').insert({ id, name: id, sign_in: id, password_hash: '-' });
		await db('staff_role').insert(roles.map(({ role, siteId }) => ({ staff_id: id, role, site_id: siteId })));
	}
	await db('staff_role').insert([
		{ staff_id: 'ode', role: 'coordinator', site_id: null },
		{ staff_id: 'dunmore', role: 'proctor', site_id: 'quayside' }
	]);
});
afterEach(() => house.close());

const LIGHT = somebody('light', 'coordinator', 'lighthouse');
const LIGHT_GRANTS = somebody('lightgrants', 'grants_officer', 'lighthouse');
const ODE = somebody('ode', 'coordinator', null);
const QUAY_GRANTS = somebody('quaygrants', 'grants_officer', 'quayside');
const DUNMORE = somebody('dunmore', 'proctor', 'quayside');

type Asked = Omit<Parameters<typeof call>[1], 'otium'>;
const ask = (handler: unknown, asked: Asked) => call(handler as never, { otium: house.otium, ...asked });
const saving = (change: object, staff: StaffMember = LIGHT) =>
	ask(save, {
		body: {
			input: {
				...makeUpInput({ kind: 'live', roomId: 'lamp', groupIds: ['azores'], proctorIds: [], paperId: 'signals' }),
				...change
			},
			edit: null
		},
		staff
	});
/** Everything that a refused request must leave as it is. */
const everything = async () =>
	JSON.stringify(
		await Promise.all(
			['session', 'roster', 'sitting', 'group_member', 'candidate', 'staff', 'staff_role', 'grant_given', 'meta'].map(
				(table) => house.otium.db(table)
			)
		)
	);
const unchanged = async (work: () => Promise<unknown>) => {
	const before = await everything();
	await work();
	expect(await everything()).toBe(before);
};

describe('planning takes nobody from another site', () => {
	it.each([
		['their group', { groupIds: ['watch'] }],
		['their group, beside one’s own', { groupIds: ['azores', 'watch'] }],
		['one of them by id', { alsoIds: ['can1'] }],
		['one of them, with a list of who is meant', { groupIds: ['watch'], only: ['can1'] }],
		['their proctor', { proctorIds: ['dunmore'] }],
		['their room', { roomId: 'chart' }],
		['a group that is nowhere', { groupIds: ['no-such-group'] }],
		[
			'their group in one of several parts',
			{
				parts: [
					{
						label: 'a',
						groupIds: ['azores'],
						only: null,
						roomId: 'lamp',
						time: '10:00',
						until: '11:00',
						proctorIds: []
					},
					{ label: 'b', groupIds: ['watch'], only: null, roomId: 'lamp', time: '12:00', until: '13:00', proctorIds: [] }
				]
			}
		]
	])('by naming %s', async (_, change) => {
		await unchanged(async () => expect((await saving(change)).status).toBe(403));
		const input = {
			...makeUpInput({ kind: 'live', roomId: 'lamp', groupIds: ['azores'], proctorIds: [], paperId: 'signals' }),
			...change
		};
		expect((await ask(plan, { body: { input, editing: null }, staff: LIGHT })).status).toBe(403);
	});

	it('nor a sitting that was carried over there', async () => {
		await openDoor(house);
		await arriveAt(house, 0, (await findSession(house.otium.db, 's1'))!.doorCode!);
		await act(house.otium, [
			{ id: 'carry-over-1', sittingId: 'sit0', by: COORDINATOR, body: { kind: 'carry_over', reason: null } }
		]);
		await unchanged(async () => expect((await saving({ alsoIds: ['can0'] })).status).toBe(403));
	});

	it('one’s own are planned; and what a session of one’s own holds from elsewhere may stay when it is changed', async () => {
		expect((await saving({})).status).toBe(200);
		const shared = await saving({ groupIds: ['azores', 'watch'], date: '2026-12-09' }, ODE);
		expect(shared.status).toBe(200);
		const [id] = shared.body.ids as string[];
		const session = (await findSession(house.otium.db, id))!;
		const input = { ...(await inputOf(house.otium.db, session)), name: 'Renamed' };
		const body = { input, edit: { id, revision: session.revision } };
		expect((await ask(save, { body, staff: LIGHT })).status).toBe(200);
	});

	it('nor by the door: whoever stands at the wrong one is added by those who coordinate their own site', async () => {
		const { db } = house.otium;
		const [id] = (await saving({ date: '2026-12-08' })).body.ids as string[];
		await db('door_refusal').insert({
			id: 'wrong-door',
			session_id: id,
			code: 'not_on_list',
			candidate_id: 'can0',
			device_name: 'Laptop',
			at: NINE
		});
		const body = { refusalId: 'wrong-door', act: 'add' };
		await unchanged(async () => expect((await ask(door, { params: { id }, body, staff: LIGHT })).status).toBe(403));
	});
});

describe('people, staff and words stay with their site', () => {
	const change = (more: object) => ({
		act: 'change',
		change: {
			number: 'LP-1',
			given: 'Nuno',
			family: 'Faria',
			email: '',
			birth: '',
			language: '',
			groupIds: ['azores'],
			left: false,
			...more
		}
	});

	it('nobody is put into another site’s group, and a taken number does not tell whose it is', async () => {
		const asked = (body: object) => ask(person, { params: { id: 'nuno' }, body, staff: LIGHT });
		await unchanged(async () => expect((await asked(change({ groupIds: ['azores', 'watch'] }))).status).toBe(403));
		const taken = await asked(change({ number: 'DO-1002' }));
		expect(taken.status).toBe(409);
		expect(JSON.stringify(taken.body)).not.toMatch(/Given|Family/);
		expect((await asked(change({ given: 'Nuno Miguel' }))).status).toBe(200);
	});

	it('a coordinator of one site changes nobody who holds anything elsewhere, by whatever field', async () => {
		const ode = { id: 'ode', name: 'Maren Ode', signIn: 'ode', email: '', password: null, roles: ODE.roles };
		for (const body of [
			{ ...ode, name: 'Renamed' },
			{ ...ode, email: 'elsewhere@sea.example' },
			{ ...ode, roles: [...ODE.roles, { role: 'proctor', siteId: 'lighthouse' }] },
			{ ...ode, password: 'a password of my choosing' },
			{ ...ode, id: 'dunmore', signIn: 'dunmore', roles: [{ role: 'proctor', siteId: 'lighthouse' }] }
		])
			await unchanged(async () => expect((await ask(staffRoute, { body, staff: LIGHT })).status).toBe(403));
		const own = { ...ode, id: 'lightgrants', signIn: 'lightgrants', name: 'Grants', roles: LIGHT_GRANTS.roles };
		expect((await ask(staffRoute, { body: own, staff: LIGHT })).status).toBe(200);
	});

	it('the words of every site’s mail are changed by those of all sites, and the logbook tells it', async () => {
		const body = { act: 'template', kind: 'candidate', subject: '{paper}', body: 'Sign in here instead.' };
		await unchanged(async () => expect((await ask(mail, { body, staff: LIGHT })).status).toBe(403));
		await unchanged(async () =>
			expect((await ask(mail, { body: { act: 'reset', kind: 'candidate' }, staff: LIGHT })).status).toBe(403)
		);
		expect((await ask(mail, { body, staff: ODE })).status).toBe(200);
		expect((await searchLogbook(house.otium.db, { text: 'mail_template_changed' })).length).toBe(1);
	});

	it('what may be copied is one’s own, however many newer ones there are elsewhere', async () => {
		const { db } = house.otium;
		const [own] = await db('session').where({ id: 's1' });
		await db('session').insert({
			...own,
			id: 'old',
			room_id: 'lamp',
			name: 'Of last year',
			opens: NINE - 365 * 86_400_000
		});
		for (let i = 0; i < 80; i++)
			await db('session').insert({ ...own, id: `new${i}`, name: `New ${i}`, opens: NINE + i });
		const event = {
			locals: { otium: house.otium, staff: LIGHT, staffSession: null },
			url: new URL('http://localhost/prepare/new'),
			parent: async () => ({ site: { id: 'lighthouse', zone: 'Europe/London' } })
		};
		const page = (await newSession(event as never)) as { others: { id: string }[] };
		expect(page.others.map(({ id }) => id)).toEqual(['old']);
	});

	it('who could give more is told of one’s own sites alone', async () => {
		await house.otium.db('staff').where({ id: 'light' }).update({ email: 'light@sea.example' });
		const seen = async (staff: StaffMember) =>
			JSON.stringify(
				await you({ url: new URL('http://otium.example/you'), locals: { otium: house.otium, staff } } as never)
			);
		expect(await seen(LIGHT_GRANTS)).toContain('light@sea.example');
		expect(await seen(DUNMORE)).not.toContain('light@sea.example');
		expect(await seen(DUNMORE)).toContain('Maren Ode');
	});

	it('the logbook shows the sessions of one’s sites and what one did, on each of its pages', async () => {
		await openDoor(house);
		await arriveAt(house, 0, (await findSession(house.otium.db, 's1'))!.doorCode!);
		await saving({});
		const seen = async (staff: StaffMember, query = '') =>
			JSON.stringify(
				(
					(await logbookPage({
						url: new URL(`http://otium.example/logbook${query}`),
						locals: { otium: house.otium, staff }
					} as never)) as { lines: unknown }
				).lines
			);
		expect(await seen(ODE)).toContain('Given0');
		for (const query of ['', '?text=Given0', '?sitting=sit0', '?text=arrived'])
			expect(await seen(LIGHT, query)).not.toMatch(/Given0|DO-1001|Watch A/);
		expect(await seen(LIGHT)).toContain('session_planned');
	});
});

describe('grants', () => {
	const standing = () =>
		giveGrant(house.otium, COORDINATOR, 'extra-time-of-can0', {
			candidateId: 'can0',
			scope: { kind: 'standing' },
			body: { kind: 'extra_time', factor: 1.5, minutes: 0 },
			reason: 'agreed',
			givenBy: 'ode',
			givenAt: NINE
		});
	/** A person of Quayside who sits at Lighthouse Point as well, put there by somebody of all sites. */
	const guestSitting = async () => {
		const [session] = (await saving({ alsoIds: ['can0'], date: '2026-12-10' }, ODE)).body.ids as string[];
		const row = await house.otium
			.db('roster')
			.join('sitting', 'sitting.id', 'sitting_id')
			.where({ 'roster.session_id': session, candidate_id: 'can0' })
			.first('sitting.id');
		return row?.id as string;
	};

	it('of one site reach no other, by a guest’s sitting either', async () => {
		await standing();
		const sittingId = await guestSitting();
		expect(sittingId).toBeTruthy();
		for (const staff of [LIGHT_GRANTS, LIGHT]) {
			const body = { id: 'extra-time-of-can0', sittingId };
			await unchanged(async () => expect((await ask(withdraw, { body, staff })).status).toBe(403));
			const asked = {
				id: 'factor-ten-for-can0',
				sittingIds: [sittingId],
				what: { kind: 'factor', factor: 3 },
				reason: 'why not'
			};
			await unchanged(async () =>
				expect((await ask(give, { body: { ...asked, scope: 'standing' }, staff })).status).toBe(403)
			);
			expect((await ask(foresee, { body: { ...asked, scope: 'standing' }, staff })).status).toBe(403);
		}
		const own = {
			sittingIds: [sittingId],
			what: { kind: 'minutes', minutes: 10 },
			reason: 'a lamp failed',
			scope: 'session'
		};
		expect((await ask(give, { body: { ...own, id: 'ten-minutes-here' }, staff: LIGHT_GRANTS })).status).toBe(200);
		expect(
			(await ask(withdraw, { body: { id: 'extra-time-of-can0', sittingId: 'sit0' }, staff: QUAY_GRANTS })).status
		).toBe(200);
	});

	it('a proctor takes back the minutes that they gave, and nothing else', async () => {
		await standing();
		const given = (id: string, staff: StaffMember) =>
			ask(minutes, { params: { id: 's1' }, body: { id, sittingIds: ['sit0'], minutes: 5, reason: 'fire' }, staff });
		const theirs = (await given('minutes-of-ode', ODE)).body.grantIds as string[];
		const own = (await given('minutes-of-dunmore', DUNMORE)).body.grantIds as string[];
		const back = async (grantIds: string[], staff: StaffMember) =>
			(await ask(takeBack, { params: { id: 's1' }, body: { grantIds }, staff })).body.withdrawn;
		expect(await back(['extra-time-of-can0', ...theirs], DUNMORE)).toBe(0);
		expect(await back(own, DUNMORE)).toBe(1);
		expect(await back(['extra-time-of-can0'], ODE)).toBe(0);
		expect(await back(theirs, ODE)).toBe(1);
	});
});
