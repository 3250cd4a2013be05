import { generateKeyPairSync } from 'node:crypto';
import { parse } from 'csv-parse/sync';
import ICAL from 'ical.js';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { StaffMember } from '$core/access';
import { asItSeems } from '$core/people';
import { DEFAULT_RULES } from '$core/session';
import { listStaff } from '$lib/server/identity';
import { blankInput, dropDraft, findDraft, findSession } from '$lib/server/session';
import { call } from '$lib/server/testing/call';
import { buildHouse, NINE, type House } from '$lib/server/testing/house';
import { somebody } from '$lib/server/testing/staff';
import { GET as calendar } from './[id]/calendar.ics/+server';
import { GET as print } from './[id]/print/[what]/+server';
import { GET as supervision } from './[id]/supervision.csv/+server';
import { POST as administration, PUT as make } from './administration/+server';
import { DELETE as withdrawClient, POST as openEnrolment } from './clients/+server';
import { POST as enrol } from '../../sit/api/enrol/+server';
import { POST as draft } from './draft/+server';
import { POST as mail } from './mail/+server';
import { DELETE as dropNetwork, POST as network } from './networks/+server';
import { POST as person } from './people/[id]/+server';
import { GET as sessionsOf, POST as timetable } from './people/[id]/timetable/+server';
import { GET as find } from './people/find/+server';
import { POST as importPeople } from './people/import/+server';
import { POST as room } from './rooms/+server';
import { POST as applySheet } from './rules/apply/+server';
import { POST as copySheet } from './rules/copy/+server';
import { POST as sheet } from './rules/[id]/+server';
import { POST as staff } from './staff/+server';

let house: House;
beforeEach(async () => {
	house = await buildHouse();
	await house.otium.db('site').insert({ id: 'lighthouse', name: 'Lighthouse Point', zone: 'Atlantic/Azores' });
	for (const id of ['quay', 'far'])
		await house.otium.db('staff').insert({ id, name: id, sign_in: id, password_hash: '-' });
});
afterEach(() => house.close());

const ODE = somebody('ode', 'coordinator', null);
const QUAY = somebody('quay', 'coordinator', 'quayside');
const ELSEWHERE = somebody('far', 'coordinator', 'lighthouse');
const PROCTOR = somebody('dunmore', 'proctor', 'quayside');
type Handler = Parameters<typeof call>[0];
type Asked = Omit<Parameters<typeof call>[1], 'otium'>;
const ask = (handler: unknown, asked: Asked) => call(handler as Handler, { otium: house.otium, ...asked });

const ROOM = {
	id: null,
	siteId: 'quayside',
	revision: 0,
	name: 'Loft',
	rows: 2,
	perRow: 3,
	plan: { outOfUse: [], apart: [] }
};
const NETWORK = { id: null, siteId: 'quayside', name: 'Labs', ranges: '10.20.0.0/16' };
const CHANGE = {
	number: 'DO-1001',
	given: 'A',
	family: 'B',
	email: '',
	birth: '',
	language: '',
	groupIds: ['watch'],
	left: false
};

describe('what is a site’s', () => {
	const routes: [string, unknown, Asked][] = [
		['a room', room, { body: ROOM }],
		['a network', network, { body: NETWORK }],
		['a code to enrol', openEnrolment, { body: { siteId: 'quayside' } }],
		['a person', person, { params: { id: 'can0' }, body: { act: 'change', change: CHANGE } }],
		['a timetable', timetable, { params: { id: 'can0' }, body: 'BEGIN:VCALENDAR' }],
		['their sessions', sessionsOf, { params: { id: 'can0' } }],
		['a supervision table', supervision, { params: { id: 's1' } }],
		['mail', mail, { body: { act: 'send', session: 's1', kind: 'candidate', addresses: null } }]
	];
	it.each(routes)(
		'%s: its coordinators do it, others do not, and nobody who is signed out',
		async (_, handler, asked) => {
			expect((await ask(handler, { ...asked, staff: null })).status).toBe(401);
			expect((await ask(handler, { ...asked, staff: ELSEWHERE })).status).toBe(403);
			expect((await ask(handler, { ...asked, staff: PROCTOR })).status).toBe(403);
			expect((await ask(handler, { ...asked, staff: QUAY })).status).not.toBe(403);
		}
	);

	it('the administration takes somebody who coordinates them all', async () => {
		const body = { id: 'winter', name: 'Winter', opensOn: null, closesOn: null, bought: null, sites: [], papers: [] };
		expect((await ask(administration, { body, staff: QUAY })).status).toBe(403);
		expect((await ask(administration, { body, staff: ODE })).status).toBe(200);
		expect((await ask(make, { body: { make: 'site', name: 'New', zone: 'Europe/Oslo' }, staff: QUAY })).status).toBe(
			403
		);
		expect((await ask(make, { body: { make: 'site', name: 'New', zone: 'Europe/Atlantis' }, staff: ODE })).status).toBe(
			409
		);
		expect((await ask(make, { body: { make: 'site', name: 'New', zone: 'Europe/Oslo' }, staff: ODE })).status).toBe(
			200
		);
		expect((await ask(make, { body: { make: 'administration', name: 'Winter' }, staff: ODE })).body.message).toMatch(
			/named “Winter” already/
		);
		const second = await ask(make, { body: { make: 'administration', name: 'Spring' }, staff: ODE });
		expect(second).toMatchObject({ status: 200, body: { ok: true, id: expect.any(String) } });
		const renamed = { ...body, id: second.body.id, name: 'Winter' };
		expect((await ask(administration, { body: renamed, staff: ODE })).body.message).toMatch(/named “Winter” already/);
		expect((await ask(administration, { body: { ...body, id: 'gone' }, staff: ODE })).status).toBe(409);
	});

	it('a room can’t be moved to a site that is one’s own by claiming it', async () => {
		const claimed = { ...ROOM, id: 'chart', siteId: 'lighthouse', revision: 1 };
		expect((await ask(room, { body: claimed, staff: ELSEWHERE })).status).toBe(403);
		expect((await ask(room, { body: { ...ROOM, rows: 0 }, staff: QUAY })).body.message).toMatch(/Rows: at least one/);
	});

	it('networks are removed, and devices withdrawn, by their site alone', async () => {
		const made = await ask(network, { body: NETWORK, staff: QUAY });
		const id = made.body.id as string;
		expect((await ask(dropNetwork, { query: `?id=${id}`, staff: ELSEWHERE })).status).toBe(403);
		expect((await ask(dropNetwork, { query: `?id=${id}`, staff: QUAY })).status).toBe(200);
		expect((await ask(dropNetwork, { query: `?id=${id}`, staff: QUAY })).status).toBe(404);
		const { code } = (await ask(openEnrolment, { body: { siteId: 'quayside' }, staff: QUAY })).body;
		const { publicKey: key } = generateKeyPairSync('ed25519');
		const publicKey = key.export({ format: 'der', type: 'spki' }).toString('base64url');
		const { deviceId } = (await ask(enrol, { body: { code, name: 'Loft 12', publicKey } })).body;
		expect((await ask(withdrawClient, { query: `?id=${deviceId}`, staff: ELSEWHERE })).status).toBe(403);
		expect((await ask(withdrawClient, { query: `?id=${deviceId}`, staff: QUAY })).status).toBe(200);
	});
});

describe('staff', () => {
	const NEW = {
		id: null,
		name: 'Ilse Penrose',
		signIn: 'penrose',
		email: '',
		password: 'a long enough word',
		roles: [{ role: 'proctor', siteId: 'quayside' }]
	};
	const roles = async (name: string) => (await listStaff(house.otium.db)).find((one) => one.name === name)?.roles;

	it('are added by a coordinator within their own sites', async () => {
		expect((await ask(staff, { body: NEW, staff: PROCTOR })).status).toBe(403);
		expect((await ask(staff, { body: NEW, staff: ELSEWHERE })).status).toBe(403);
		expect((await ask(staff, { body: NEW, staff: QUAY })).status).toBe(200);
		expect(await roles('Ilse Penrose')).toEqual([{ role: 'proctor', siteId: 'quayside' }]);
	});

	it('nobody gives away more than they have', async () => {
		const everywhere = { ...NEW, roles: [{ role: 'coordinator', siteId: null }] };
		expect((await ask(staff, { body: everywhere, staff: QUAY })).status).toBe(403);
		// Nor takes over somebody who holds more, by a new password.
		await house.otium.db('staff_role').insert({ staff_id: 'ode', role: 'coordinator', site_id: null });
		const takeOver = {
			id: 'ode',
			name: 'Maren Ode',
			signIn: 'ode',
			email: '',
			password: 'another long word',
			roles: [{ role: 'coordinator', siteId: null }]
		};
		expect((await ask(staff, { body: takeOver, staff: QUAY })).status).toBe(403);
		expect((await ask(staff, { body: { ...takeOver, password: null, roles: [] }, staff: QUAY })).status).toBe(403);
	});

	it('from a list: each by the same rules, one that fails stops no other, and what is handed over stands in no record', async () => {
		const { PUT: several } = await import('./staff/+server');
		const people = [
			{ name: 'Ilse Penrose', signIn: 'penrose', email: '' },
			{ name: 'Another', signIn: 'penrose', email: '' },
			{ name: 'Ito Hale', signIn: 'hale', email: 'hale@saltmarsh.example' }
		];
		const list = (roles: object[], member: StaffMember) => ask(several, { body: { people, roles }, staff: member });
		expect((await list([{ role: 'proctor', siteId: null }], QUAY)).status).toBe(403);
		expect((await list(NEW.roles, ELSEWHERE)).status).toBe(403);
		expect(await roles('Ilse Penrose')).toBeUndefined();
		const { invited } = (await list(NEW.roles, QUAY)).body as never as {
			invited: { name: string; link: string | null; fault: string | null }[];
		};
		expect(invited.map(({ link, fault }) => [link !== null, fault !== null])).toEqual([
			[true, false],
			[false, true],
			[true, false]
		]);
		const secret = new URL(invited[0].link!).searchParams.get('link')!;
		for (const table of ['logbook', 'mail', 'password_link'])
			expect(JSON.stringify(await house.otium.db(table))).not.toContain(secret);
	});

	it('a short password, nothing that they may do and a strange name are told', async () => {
		expect((await ask(staff, { body: { ...NEW, password: 'short' }, staff: ODE })).body.message).toMatch(/at least 12/);
		expect((await ask(staff, { body: { ...NEW, roles: [] }, staff: ODE })).body.message).toMatch(/would have no role/);
		expect((await ask(staff, { body: { ...NEW, signIn: 'a b' }, staff: ODE })).status).toBe(400);
	});
});

describe('importing', () => {
	const wishes = { ...asItSeems('quayside'), seal: null, groupId: null };
	async function send(
		file: string | Uint8Array,
		asked: object = {},
		member: StaffMember | null = QUAY,
		name = 'people.csv'
	) {
		const form = new FormData();
		form.set('file', new File([file as BlobPart], name));
		form.set('asked', JSON.stringify({ ...wishes, ...asked }));
		const request = new Request('http://localhost/', { method: 'POST', body: form });
		const response = await (importPeople as unknown as (event: object) => Promise<Response>)({
			request,
			locals: { otium: house.otium, staff: member }
		});
		const text = await response.text();
		return { status: response.status, text, json: () => JSON.parse(text) };
	}
	const FILE = 'number,given,family,group\nDO-1001,Given0,Family0,Watch A\nDO-5001,Zoë,Gull,Watch A';

	it('is checked, then done with progress a line at a time', async () => {
		const checked = (await send(FILE)).json();
		expect(checked.counts).toEqual({ add: 1, change: 0, same: 1, missing: 2, problems: 0 });
		expect(checked.add).toEqual(['Zoë Gull, DO-5001']);
		const lines = (await send(FILE, { seal: checked.seal })).text
			.trim()
			.split('\n')
			.map((line) => JSON.parse(line));
		expect(lines.at(-1)).toEqual({ applied: { added: 1, changed: 0, left: 0 } });
		expect(lines[0]).toEqual({ done: 1, total: 1 });
	});

	it('with another’s seal, or another wish than was looked at, does nothing', async () => {
		const { seal } = (await send(FILE)).json();
		const refused = (await send(FILE, { seal, missing: 'leave' })).text;
		expect(JSON.parse(refused.trim())).toEqual({ refused: expect.stringMatching(/Check the file again/) });
		expect(await house.otium.db('candidate')).toHaveLength(3);
	});

	it('is the site’s own, and asks for a file', async () => {
		expect((await send(FILE, {}, ELSEWHERE)).status).toBe(403);
		expect((await send(FILE, {}, null)).status).toBe(401);
		expect((await ask(importPeople, { body: { hello: true }, staff: QUAY })).status).toBe(400);
		expect((await send(new Uint8Array(11 * 1024 * 1024))).json().message).toMatch(/is 11 MB; the most is 10 MB/);
	});

	it('takes a timetable over for a group', async () => {
		const ics =
			'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nDTSTART:20261208T100000Z\r\nDURATION:PT1H\r\nEND:VEVENT\r\nEND:VCALENDAR';
		expect((await send(ics, { groupId: 'watch' }, QUAY, 'a.ics')).json()).toEqual({
			timetable: { candidates: 3, entries: 1, skipped: [] }
		});
		expect((await send(ics, { groupId: 'nobody' }, QUAY, 'a.ics')).status).toBe(404);
		expect((await send('hello', { groupId: 'watch' }, QUAY, 'a.ics')).status).toBe(422);
	});
});

describe('people', () => {
	it('are found a page at a time, whatever the page is called', async () => {
		for (const page of ['0', '-3', 'x', '1e9'])
			expect((await ask(find, { query: `?text=family1&page=${page}`, staff: QUAY })).status).toBe(200);
		expect((await ask(find, { query: '?text=family1', staff: QUAY })).body.total).toBe(1);
	});

	it('get standing accommodations that tell their effect, once however often they are sent', async () => {
		const give = {
			act: 'give',
			id: 'grant-of-mine',
			body: { kind: 'extra_time', factor: 1.5, minutes: 0 },
			reason: 'agreed'
		};
		const first = await ask(person, { params: { id: 'can0' }, body: give, staff: QUAY });
		expect(first.body.effects).toEqual([expect.stringContaining('60 + 30 = 90 min')]);
		await ask(person, { params: { id: 'can0' }, body: give, staff: QUAY });
		expect(await house.otium.db('grant_given')).toHaveLength(1);
		expect(
			(await ask(person, { params: { id: 'can1' }, body: { act: 'withdraw', id: 'grant-of-mine' }, staff: QUAY }))
				.status
		).toBe(404);
		expect(
			(await ask(person, { params: { id: 'can0' }, body: { act: 'withdraw', id: 'grant-of-mine' }, staff: QUAY }))
				.status
		).toBe(200);
	});

	it.each([
		[{ kind: 'extra_time', factor: 1, minutes: 0 }, /Give a factor above 1/],
		[{ kind: 'extra_time', factor: 0.5, minutes: 0 }, /at least 1/],
		[{ kind: 'breaks', count: 0, minutes: 5 }, /At least one break/],
		[{ kind: 'display', magnification: 9, contrast: false }, /At most eight/]
	])('%j is refused in words', async (body, message) => {
		const answer = await ask(person, {
			params: { id: 'can0' },
			body: { act: 'give', id: 'one-more-grant', body, reason: 'x' },
			staff: QUAY
		});
		expect(answer.body.message).toMatch(message);
	});
});

describe('a session', () => {
	it('goes out as a calendar, a table of chosen fields, and prints', async () => {
		const ics = await ask(calendar, { params: { id: 's1' }, staff: QUAY });
		const event = new ICAL.Event(new ICAL.Component(ICAL.parse(ics.text) as never).getFirstSubcomponent('vevent')!);
		expect([event.summary, event.startDate.toJSDate().getTime()]).toEqual(['Numbers · Watch A', NINE]);
		await house.otium.db('candidate').where({ id: 'can0' }).update({ family: '=HYPERLINK("x")' });
		const csv = await ask(supervision, { params: { id: 's1' }, query: '?fields=name,number,root', staff: QUAY });
		const rows = parse(csv.text, { bom: true });
		expect(rows[0]).toEqual(['Name', 'Number']);
		expect(rows).toHaveLength(4);
		// Where slips are off they would open nothing.
		const asked = { params: { id: 's1' }, query: '?fields=address', staff: QUAY };
		expect((await ask(supervision, asked)).status).toBe(422);
		const { rules } = await house.otium.db('session').where({ id: 's1' }).first('rules');
		const withSlips = JSON.stringify({ ...JSON.parse(rules), door: { ...JSON.parse(rules).door, slips: true } });
		await house.otium.db('session').where({ id: 's1' }).update({ rules: withSlips });
		// Personal addresses are there before any slip was printed, and each opens for one alone.
		const addressed = await ask(supervision, asked);
		const addresses = parse(addressed.text, { bom: true }).flat().slice(1);
		expect(new Set(addresses).size).toBe(3);
		for (const address of addresses) expect(address).toMatch(/\/sit\?code=[0-9A-Z]{10}$/);
		expect(
			(await ask(print, { params: { id: 's1', what: 'register' }, staff: PROCTOR })).headers.get('content-type')
		).toBe('application/pdf');
		expect((await ask(print, { params: { id: 's1', what: 'answers' }, staff: PROCTOR })).status).toBe(404);
	});

	it('takes a sheet that is applied to it, and is told when it can’t', async () => {
		const copied = await ask(copySheet, { body: { from: 'class-test' }, staff: QUAY });
		const id = copied.body.id as string;
		const rules = { ...DEFAULT_RULES, timing: { ...DEFAULT_RULES.timing, limitMinutes: 25 } };
		expect(
			(await ask(sheet, { params: { id }, body: { name: 'Short', note: '', revision: 1, rules }, staff: QUAY })).body
				.revision
		).toBe(2);
		const bad = await ask(sheet, {
			params: { id },
			body: { name: 'Short', note: '', revision: 2, rules: { timing: { limitMinutes: -1 } } },
			staff: QUAY
		});
		expect([bad.status, bad.body.faults]).toEqual([
			422,
			{ 'timing.limitMinutes': expect.stringMatching(/between 1 and 1440/) }
		]);
		house.clock.at = NINE - 120 * 60_000;
		const applied = await ask(applySheet, { body: { sheet: id, sessions: [{ id: 's1', revision: 1 }] }, staff: QUAY });
		expect(applied.body).toEqual({ done: ['Numbers · Watch A'], refused: [] });
		expect((await findSession(house.otium.db, 's1'))!.rules.timing.limitMinutes).toBe(25);
		const behind = await ask(applySheet, { body: { sheet: id, sessions: [{ id: 's1', revision: 1 }] }, staff: QUAY });
		expect(behind.body.refused).toMatchObject([{ why: expect.stringMatching(/Somebody else/) }]);
		expect(
			(await ask(applySheet, { body: { sheet: id, sessions: [{ id: 's1', revision: 2 }] }, staff: ELSEWHERE })).body
		).toEqual({ done: [], refused: [] });
	});

	it('is kept as a draft, however unfinished, for its owner alone', async () => {
		const input = { ...blankInput('Europe/London', NINE), time: 'half past' };
		const kept = await ask(draft, { body: { id: null, revision: 0, title: 'A', input, added: [] }, staff: QUAY });
		expect(kept.status).toBe(200);
		const again = { id: kept.body.id, revision: 1, title: 'A', input, added: [] };
		expect((await ask(draft, { body: again, staff: ELSEWHERE })).status).toBe(409);
		expect((await ask(draft, { body: again, staff: QUAY })).body.revision).toBe(2);
		expect((await ask(draft, { body: again, staff: QUAY })).body.code).toBe('behind');
		expect((await ask(draft, { body: again, staff: PROCTOR })).status).toBe(403);
		// Whoever plans a session throws away no draft but their own.
		await dropDraft(house.otium.db, ELSEWHERE, kept.body.id as string);
		expect(await findDraft(house.otium.db, QUAY, kept.body.id as string)).not.toBeNull();
		await dropDraft(house.otium.db, QUAY, kept.body.id as string);
		expect(await findDraft(house.otium.db, QUAY, kept.body.id as string)).toBeNull();
	});
});

describe('mail', () => {
	it('a template with an unknown word is refused with those there are; a good one is kept, and put back', async () => {
		const template = { act: 'template', kind: 'candidate', subject: '{paper}', body: 'Dear {nmae}' };
		expect((await ask(mail, { body: template, staff: ODE })).body).toMatchObject({
			message: 'Nothing is known by the name {nmae}.',
			instead: expect.stringContaining('{name}')
		});
		expect((await ask(mail, { body: { ...template, body: 'Dear {name}' }, staff: ODE })).status).toBe(200);
		expect((await ask(mail, { body: { act: 'reset', kind: 'candidate' }, staff: ODE })).status).toBe(200);
	});

	it('goes to the addresses that are asked for', async () => {
		await house.otium.db('candidate').update({ email: house.otium.db.raw("lower(number) || '@sea.example'") });
		const send = (addresses: string[] | null) =>
			ask(mail, { body: { act: 'send', session: 's1', kind: 'candidate', addresses }, staff: QUAY });
		expect((await send(['do-1002@sea.example'])).body.posted).toBe(1);
		expect((await send(null)).body.posted).toBe(2);
		expect((await send(null)).body.posted).toBe(0);
	});
});
