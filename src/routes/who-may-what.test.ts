import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { holds, may, STAFF_ROLES, type Act, type StaffMember } from '$core/access';
import { DEFAULT_RULES } from '$core/session';
import { keepInBank } from '$lib/server/bank';
import { transact } from '$lib/server/db';
import { call } from '$lib/server/testing/call';
import { buildHouse, NINE, type House } from '$lib/server/testing/house';
import { BODIES, paramsOf, queryOf } from '$lib/server/testing/staff-bodies';
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

/** Shared by all sites to look at and to copy: what comes of it is one's own. */
const SHARED = ['POST prepare/rules/copy', 'POST papers/package', 'POST papers/bank/package', 'POST papers/media'];
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
	const accounts = STAFF.map(({ id, name }) => ({ id, name, sign_in: id, password_hash: '-' }));
	await db('staff').insert(accounts).onConflict('id').ignore();
	await db('staff_role').insert([
		{ staff_id: 'ode', role: 'coordinator', site_id: null },
		{ staff_id: 'dunmore', role: 'proctor', site_id: 'quayside' }
	]);
	await db('session_draft').insert({ id: 'a-draft', staff_id: 'ode', title: 'A draft', input: '{}', saved_at: NINE });
	// What was written by hand is sealed here, and not by whoever is tried next.
	await transact(db, async () => {});
});
afterEach(() => house.close());

/** How many rows were ever written: as long as it stays the same, so does everything. */
async function written(): Promise<number> {
	const [{ rows }] = await house.otium.db.raw('SELECT total_changes() AS rows');
	return rows;
}

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
			const before = await everything();
			// Whoever may not comes first: what is done by those who may would hide what the others could do.
			for (const member of [...STAFF].sort((a, b) => Number(isAllowed(a)) - Number(isAllowed(b)))) {
				const rows = await written();
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
				// What was written and taken back has changed nothing either.
				if ((await written()) !== rows) expect(await everything(), who).toBe(before);
			}
		},
		60_000
	);
});
