import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { holds, may, STAFF_ROLES, type Act, type StaffMember } from '$core/access';
import { COLUMNS } from '$core/people';
import { DEFAULT_RULES } from '$core/session';
import { keepInBank } from '$lib/server/bank';
import { call } from '$lib/server/testing/call';
import { buildHouse, makeUpInput, NINE, type House } from '$lib/server/testing/house';
import { somebody } from '$lib/server/testing/staff';

/** Every route of the staff, found and not listed. */
const ROUTES = import.meta.glob<Record<string, unknown>>('./**/+server.ts', { eager: true });
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'];
type Handler = ((event: never) => Promise<Response>) & { act?: Act };
const OF_STAFF = Object.entries(ROUTES).filter(([file]) => file.startsWith('./(staff)/'));
const HANDLERS = OF_STAFF.flatMap(([file, module]) =>
	METHODS.filter((method) => method in module).map((method) => ({
		method,
		path: file.replace('./(staff)/', '').replace('/+server.ts', ''),
		handler: module[method] as Handler
	}))
);
/** About whoever asks, and nobody else; what is found shows each what they may see (find-anything.test). */
const ONES_OWN = ['GET find', 'POST confirm', 'POST you/here', 'POST you/sign-in', 'POST you/sign-in/second'];

const grant = { id: 'a-grant-of-mine', sittingIds: ['sit0'], what: { kind: 'minutes', minutes: 5 }, scope: 'session' };
const form = (fields: object) => {
	const data = new FormData();
	data.set('file', new File(['number,given,family\nDO-1001,Someone,Else\n'], 'people.csv'));
	data.set('asked', JSON.stringify(fields));
	return data;
};
const OF_QUESTION = { administrationId: 'winter', paperId: 'numbers', questionId: 'q1' };
const sitting = { commandId: 'command-of-mine', sittingIds: ['sit0'] };
/** What somebody sends who wants something of Quayside: a body that its route can read, with ids of that site. */
const BODIES: Record<string, () => unknown> = {
	'POST close-out/sign': () => ({ act: 'take_back', administrationId: 'winter', siteId: 'quayside' }),
	'POST close-out/close': () => ({ administrationId: 'winter', typed: 'Winter', basis: 'x' }),
	'POST close-out/decide': () => ({ act: 'validity', sittingIds: ['sit0'], verdict: 'void', note: 'x' }),
	'POST close-out/questions': () => ({
		act: 'propose',
		...OF_QUESTION,
		id: 'corr-mine',
		correction: { kind: 'for_all' },
		reason: 'x'
	}),
	'POST close-out/marking': () => ({ act: 'mark', ...OF_QUESTION, id: 'mark-of-mine', key: 'a key', points: 1 }),
	'POST close-out/marking/plan': () => ({
		act: 'plan',
		...OF_QUESTION,
		revision: 0,
		plan: { markers: [], secondPercent: 0, tolerance: 0, rubric: [] }
	}),
	'POST close-out/results': () => ({
		act: 'release',
		id: 'release-mine',
		administrationId: 'winter',
		paperId: 'numbers',
		shows: 'points',
		fromAt: null
	}),
	'POST close-out/archive': () => ({
		act: 'propose',
		id: 'addendum-mine',
		administrationId: 'winter',
		number: null,
		text: 'x'
	}),
	'POST grants/foresee': () => ({ ...grant, reason: 'x' }),
	'POST grants/give': () => ({ ...grant, reason: 'x' }),
	'POST grants/reopen': () => ({ id: 'reopen-of-mine', sittingId: 'sit0', reason: 'x', minutes: 5, window: null }),
	'POST grants/owed': () => ({ act: 'offer', sittingIds: ['sit0'] }),
	'POST grants/requests': () => ({ act: 'decide', id: 'a-request', state: 'declined', note: 'x' }),
	'POST grants/fit': () => ({
		act: 'check',
		siteId: 'quayside',
		day: '2026-12-08',
		places: [{ id: 'sit0', opens: NINE, closes: NINE + 1, roomId: 'chart', proctorId: null }]
	}),
	'POST live/[id]/window': () => ({
		foresee: false,
		date: '2026-12-08',
		opens: '09:00',
		closes: '11:00',
		revision: 1,
		reason: 'x'
	}),
	'POST live/[id]/requests': () => ({ sittingId: 'sit0', what: 'other', why: 'x' }),
	'POST grants/withdraw': () => ({ id: 'a-grant', sittingId: 'sit0' }),
	'POST live/[id]/act': () => ({ ...sitting, kind: 'let_in' }),
	'POST live/[id]/door': () => ({ refusalId: 'refused', act: 'seen' }),
	'POST live/[id]/hand': () => ({ sittingIds: ['sit0'] }),
	'POST live/[id]/incidents': () => ({}),
	'DELETE live/[id]/incidents': () => ({ id: 'an-incident' }),
	'POST live/[id]/message': () => ({ ...sitting, text: 'Stop now.' }),
	'POST live/[id]/minutes': () => ({ id: 'minutes-of-mine', sittingIds: null, minutes: 5, reason: 'x' }),
	'DELETE live/[id]/minutes': () => ({ grantIds: ['a-grant'] }),
	'POST live/[id]/proctors': () => ({ staffId: 'ode', commandId: 'hand-over-1', stays: true }),
	'POST live/[id]/seat': () => ({ sittingId: 'sit0', seat: 'B1' }),
	'POST live/[id]/session': () => ({ act: 'end' }),
	'POST live/[id]/sitting/[sitting]/count': () => ({ reason: 'x' }),
	'POST papers': () => ({ title: 'Mine', siteId: 'quayside', from: null }),
	'POST papers/[id]': () => ({
		kind: 'part',
		index: 0,
		before: { title: 'Given1', draw: null },
		after: { title: 'Given2', draw: null }
	}),
	'POST papers/bank': () => ({ ids: ['q-mine'], change: { points: 3 } }),
	'PUT papers/bank/[question]': () => ({
		question: { id: 'q-mine', kind: 'short', stem: 'Given3', points: 1, topic: '', accepted: ['x'] },
		revision: 1,
		siteId: 'quayside',
		audience: 'site',
		named: []
	}),
	'POST papers/bank/[question]': () => ({ text: 'Given4' }),
	'POST papers/version/[version]': () => ({ act: 'withdraw', why: 'Given4' }),
	'POST papers/media': () => '<svg xmlns="http://www.w3.org/2000/svg" width="9" height="9"/>',
	'POST papers/package': () => 'no package',
	'POST papers/[id]/forms': () => ({ forms: 2, each: 1 }),
	'POST papers/[id]/fill': () => ({ minutes: null }),
	'POST papers/[id]/bank': () => ({ ids: ['q-mine'] }),
	'POST papers/[id]/sheet': () => 'Question,Answer\nDeep?,yes',
	'POST papers/[id]/document': () => 'no document',
	'POST papers/[id]/freeze': () => ({ revision: 1 }),
	'PUT prepare/administration': () => ({ make: 'site', name: 'Mine', zone: 'Europe/London' }),
	'POST prepare/administration': () => ({
		id: 'winter',
		name: 'Mine',
		opensOn: null,
		closesOn: null,
		bought: null,
		sites: [],
		papers: []
	}),
	'POST prepare/clients': () => ({ siteId: 'quayside' }),
	'POST prepare/draft': () => ({ id: 'a-draft', revision: 1, title: 'x', input: {}, added: [] }),
	'POST prepare/mail': () => ({ act: 'send', session: 's1', kind: 'candidate', addresses: null }),
	'POST prepare/networks': () => ({ id: 'wires', siteId: 'quayside', name: 'Mine', ranges: '10.0.0.0/8' }),
	'POST prepare/people/[id]': () => ({
		act: 'change',
		change: {
			number: 'X-1',
			given: 'Mine',
			family: 'Now',
			email: '',
			birth: '',
			language: '',
			groupIds: ['watch'],
			left: false
		}
	}),
	'PUT prepare/people/[id]/photo': () => 'x',
	'POST prepare/people/[id]/timetable': () => 'BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nEND:VCALENDAR\r\n',
	'POST prepare/people/import': () =>
		form({
			siteId: 'quayside',
			mapping: Object.fromEntries(Object.keys(COLUMNS).map((key) => [key, null])),
			separator: ',',
			dateOrder: null,
			makeGroups: true,
			missing: 'leave',
			schoolId: null,
			seal: null,
			groupId: null
		}),
	'POST prepare/plan': () => ({ input: makeUpInput(), editing: null }),
	'POST prepare/rooms': () => ({
		id: 'chart',
		siteId: 'quayside',
		revision: 1,
		name: 'Mine',
		rows: 1,
		perRow: 1,
		plan: { outOfUse: [], apart: [] }
	}),
	'POST prepare/rules/[id]': () => ({ name: 'Mine', note: '', revision: 1, rules: DEFAULT_RULES }),
	'POST prepare/rules/apply': () => ({ sheet: 'remote', sessions: [{ id: 's1', revision: 1 }] }),
	'POST prepare/rules/copy': () => ({ from: 'ours' }),
	'POST prepare/save': () => ({ input: makeUpInput(), edit: null }),
	'POST prepare/staff': () => ({
		id: 'dunmore',
		name: 'Mine',
		signIn: 'dunmore',
		email: '',
		password: null,
		roles: [{ role: 'proctor', siteId: 'quayside' }]
	}),
	'POST prepare/staff/access': () => ({ act: 'take_second_step', id: 'dunmore' })
};
/** Shared by all sites to look at and to copy: what comes of it is one's own. */
const SHARED = ['POST prepare/rules/copy', 'POST papers/package', 'POST papers/media'];
const params: Record<string, Record<string, string>> = {
	live: { id: 's1', sitting: 'sit0', snapshot: 'a-picture', incident: 'an-incident', file: 'a'.repeat(64) },
	'close-out': { id: 's1', administration: 'winter', session: 's1' },
	'grants/evidence': { id: 'a-doctors-note' },
	'papers/version': { version: 'a-version' },
	'papers/media': { file: 'a'.repeat(64) },
	'papers/bank': { question: 'q-mine' },
	papers: { id: 'a-paper' },
	'prepare/people': { id: 'can0' },
	'prepare/rules': { id: 'ours' },
	prepare: { id: 's1', what: 'register' }
};
const paramsOf = (path: string) => Object.entries(params).find(([start]) => path.startsWith(start))?.[1] ?? {};
/** What a query may name. */
const IDS: Record<string, string> = {
	'prepare/clients': 'a-tablet',
	'prepare/networks': 'wires',
	'prepare/draft': 'a-draft'
};
const queryOf = (path: string) =>
	`?id=${IDS[path] ?? 's1'}&site=quayside&group=watch&rooms=s1&session=s1&text=Family&format=csv&q=Family&ids=sit0`;

const QUAYSIDE = { siteId: 'quayside', proctorIds: ['dunmore'] };
/** Each role here, there and everywhere; and a proctor of this site whom the session does not name. */
const STAFF: StaffMember[] = [
	...STAFF_ROLES.flatMap((role) =>
		['quayside', 'lighthouse', null].map((siteId) => somebody(`${role} ${siteId}`, role, siteId))
	),
	somebody('dunmore', 'proctor', 'quayside')
];

let house: House;
beforeEach(async () => {
	house = await buildHouse();
	const { db } = house.otium;
	await db('site').insert({ id: 'lighthouse', name: 'Lighthouse Point', zone: 'Europe/London' });
	await db('network').insert({ id: 'wires', site_id: 'quayside', name: 'Wires', ranges: '10.0.0.0/8' });
	await db('rule_sheet').insert({
		id: 'ours',
		name: 'Ours',
		rules: JSON.stringify(DEFAULT_RULES),
		site_id: 'quayside'
	});
	await db('client_device').insert({
		id: 'a-tablet',
		site_id: 'quayside',
		name: 'Tablet 1',
		public_key: '-',
		enrolled_by: 'ode',
		enrolled_at: NINE
	});
	await db('grant_request').insert({
		id: 'a-request',
		site_id: 'quayside',
		candidate_id: 'can0',
		what: 'other',
		why: 'x',
		asked_as: 'teacher',
		asked_by: 'Given8',
		asked_at: NINE
	});
	await db('evidence').insert({ id: 'a-doctors-note', name: 'x.txt', type: 'text/plain', at: NINE, keep_until: NINE });
	await db('paper').insert({
		id: 'a-version',
		title: 'A paper',
		version: 1,
		content: '{"parts":[]}',
		draft_id: 'a-paper'
	});
	await db('paper_draft').insert({
		id: 'a-paper',
		site_id: 'quayside',
		title: 'A paper',
		content: JSON.stringify({ title: 'A paper', parts: [{ title: 'Given1', questions: [], draw: null }] }),
		changed_at: NINE,
		changed_by: 'ode'
	});
	await keepInBank(db, [{ id: 'q-mine', kind: 'short', stem: 'Given9', points: 1, topic: '', accepted: ['x'] }], {
		at: NINE,
		writer: { id: 'ode', sites: null },
		siteId: 'quayside',
		audience: 'site'
	});
	await db('staff_role').insert([
		{ staff_id: 'ode', role: 'coordinator', site_id: null },
		{ staff_id: 'dunmore', role: 'proctor', site_id: 'quayside' }
	]);
	await db('session_draft').insert({ id: 'a-draft', staff_id: 'ode', title: 'A draft', input: '{}', saved_at: NINE });
});
afterEach(() => house.close());

/** What Quayside has; the logbook is among it, so that nothing done is overlooked. */
async function everything(): Promise<string> {
	const tables: { name: string }[] = await house.otium.db('sqlite_master').where({ type: 'table' }).select('name');
	const kept = tables.map(({ name }) => name).filter((name) => !/^(sqlite|knex)/.test(name));
	return JSON.stringify(await Promise.all(kept.map(async (name) => [name, await house.otium.db(name)])));
}

describe('who may what', () => {
	it('is asked by every route, but for what is about oneself', () => {
		const names = HANDLERS.filter(({ handler }) => !handler.act).map(({ method, path }) => `${method} ${path}`);
		expect(names.sort()).toEqual(ONES_OWN);
		const writing = HANDLERS.filter(({ method, path }) => method !== 'GET' && !ONES_OWN.includes(`${method} ${path}`));
		const unknown = writing.filter(
			({ method, path }) => method !== 'DELETE' && !Object.hasOwn(BODIES, `${method} ${path}`)
		);
		expect(
			unknown.map(({ method, path }) => `${method} ${path}`),
			'say in BODIES what somebody sends it'
		).toEqual([]);
	});

	it.each(HANDLERS.filter(({ handler }) => handler.act).map((one) => [`${one.method} ${one.path}`, one] as const))(
		'%s: as the table says, for each role at each site',
		async (name, { method, path, handler }) => {
			const isAllowed = (member: StaffMember) =>
				may(member, handler.act!, QUAYSIDE) ||
				(SHARED.includes(name) && member.roles.some((held) => holds(held, handler.act!)));
			// Whoever may not comes first: what is done by those who may would hide what the others could do.
			for (const member of [...STAFF].sort((a, b) => Number(isAllowed(a)) - Number(isAllowed(b)))) {
				const before = await everything();
				const body = method === 'GET' ? undefined : BODIES[name]?.();
				const answer = await call(handler, {
					otium: house.otium,
					staff: member,
					method,
					params: paramsOf(path),
					query: queryOf(path),
					body,
					signIn: 'a-sign-in'
				});
				const who = `${name} as ${member.id}: ${answer.status}`;
				if (isAllowed(member)) {
					expect([401, 403, 500], who).not.toContain(answer.status);
					continue;
				}
				// Refused, or an empty list; nothing of Quayside is told, and nothing has changed.
				expect([200, 401, 403, 404, 409], who).toContain(answer.status);
				expect(answer.text, who).not.toMatch(/Given\d|Family\d|DO-100|Watch A|Tablet 1/);
				expect(await everything(), who).toBe(before);
			}
		},
		60_000
	);
});
