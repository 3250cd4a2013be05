import { isHttpError, isRedirect } from '@sveltejs/kit';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { CORRECTION_KINDS } from '$core/marking';
import { FROZEN_TABLES } from '$lib/server/db';
import { closable, close } from '$lib/server/closing';
import { signOff } from '$lib/server/closing';
import { call } from '$lib/server/testing/call';
import { PAPER, PROCTOR, type House } from '$lib/server/testing/house';
import { LORNE, ODE, satHouse } from '$lib/server/testing/sat';
import { BODIES, paramsOf, queryOf } from '$lib/server/testing/staff-bodies';
import { act } from '$lib/server/sitting';
import { sweep } from '$lib/server/sweep';
import { giveGrant } from '$lib/server/grants';

/** Every route there is, found and not listed. */
const ROUTES = import.meta.glob<Record<string, unknown>>('./**/+server.ts', { eager: true });
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'];
type Handler = (event: never) => Promise<Response>;
const HANDLERS = Object.entries(ROUTES).flatMap(([file, module]) =>
	METHODS.filter((method) => method in module).map((method) => ({
		method,
		path: file.replace('./(staff)/', '').replace('./', '').replace('/+server.ts', ''),
		handler: module[method] as Handler
	}))
);
const OF = { administrationId: 'winter', paperId: 'numbers', questionId: 'q1' };
/** More that somebody would send to change what is closed. */
const MORE: Record<string, object[]> = {
	'POST close-out/questions': CORRECTION_KINDS.map((kind) => ({
		act: 'propose',
		...OF,
		id: `corr-${kind}`,
		correction: { kind, answer: true, points: 2 },
		reason: 'x'
	})),
	'POST close-out/decide': [
		{ act: 'alike', sessionId: 's1', note: 'x' },
		{ act: 'validity', sittingIds: ['sit1'], verdict: 'void', note: 'x' }
	],
	'POST close-out/sign': [{ act: 'sign', administrationId: 'winter', siteId: 'quayside' }],
	'POST grants/reopen': [{ id: 'reopen-anew', sittingId: 'sit1', reason: 'x', minutes: null, window: null }],
	'POST live/[id]/act': ['reopen', 'set_aside', 'hand_in', 'continue_later', 'carry_over'].map((kind) => ({
		commandId: `command-${kind}`,
		kind,
		sittingIds: ['sit0', 'sit1'],
		reason: 'x'
	})),
	'POST sit/api/answers': [
		{ revisions: [{ seq: 99, questionId: 'q1', value: false, marked: false, struck: [], inViewMs: 1 }] }
	],
	'POST sit/api/hand-in': [{ commandId: 'hand-in-anew', finishWord: '' }]
};

let house: House;
let frozen = '';
const rows = async () =>
	JSON.stringify(await Promise.all(FROZEN_TABLES.map(async (table) => [table, await house.otium.db(table)])));

beforeAll(async () => {
	house = await satHouse(PAPER, 3, () => true);
	await signOff(house.otium, ODE, { role: 'coordinator', id: 'ode' }, 'winter', 'quayside');
	const { basis, objection } = await closable(house.otium, LORNE, 'winter');
	expect(objection).toBeNull();
	await close(house.otium, LORNE, { role: 'closing_officer', id: 'lorne' }, 'winter', basis);
	frozen = await rows();
});
afterAll(() => house.close());

describe('after closing', () => {
	it.each(HANDLERS.map((one) => [`${one.method} ${one.path}`, one] as const))(
		'%s changes nothing of it',
		async (name, { method, path, handler }) => {
			const bodies = method === 'GET' ? [undefined] : [BODIES[name]?.(), ...(MORE[name] ?? [])];
			for (const body of bodies) {
				for (const asked of [
					{ staff: ODE },
					{ staff: { ...ODE, roles: [...ODE.roles, ...LORNE.roles] } },
					{ staff: null, device: { sittingId: 'sit0', epoch: 1 } }
				]) {
					const answer = await call(handler, {
						otium: house.otium,
						method,
						params: { id: 's1', code: 'x.y', note: 'x', ...paramsOf(path) },
						query: queryOf(path),
						body,
						signIn: 'a-sign-in',
						...asked
					}).catch((thrown: unknown) => {
						// A page elsewhere, or a refusal, is an answer.
						if (isRedirect(thrown) || isHttpError(thrown)) return { status: thrown.status, text: '' };
						throw thrown;
					});
					expect(answer.status, `${name} ${answer.text.slice(0, 200)}`).not.toBe(500);
				}
			}
			expect(await rows(), name).toBe(frozen);
		},
		60_000
	);

	it('neither does what time brings, nor what is done past all routes', async () => {
		house.clock.at += 86_400_000;
		await sweep(house.otium);
		await house.otium.presence.sweep();
		house.otium.presence.seen('sit0');
		const tried = [
			act(house.otium, [
				{
					id: 'reopen-past-all',
					sittingId: 'sit0',
					by: { role: 'coordinator', id: 'ode' },
					body: { kind: 'reopen', reason: 'x' }
				}
			]),
			act(house.otium, [
				{ id: 'aside-past-all', sittingId: 'sit0', by: PROCTOR, body: { kind: 'set_aside', reason: 'x' } }
			]),
			giveGrant(house.otium, { role: 'coordinator', id: 'ode' }, 'grant-past-all', {
				candidateId: 'can0',
				scope: { kind: 'session', id: 's1' },
				body: { kind: 'minutes', minutes: 5 } as never,
				reason: 'x',
				givenBy: 'ode',
				givenAt: 1
			}),
			house.otium.db('session').where({ id: 's1' }).update({ name: 'Another' }),
			house.otium.db('closing').delete(),
			house.otium.db('administration').where({ id: 'winter' }).update({ name: 'Another' }),
			house.otium.db('closing').insert({
				administration_id: 'winter',
				at: 1,
				by: 'x',
				archive: 'x',
				sha256: 'x',
				bytes: 1,
				counts: '{}',
				head: 'x'
			})
		];
		const done = await Promise.allSettled(tried);
		expect(done.every((one) => one.status === 'rejected' || JSON.stringify(one.value).includes('"ok":false'))).toBe(
			true
		);
		expect(await rows()).toBe(frozen);
	});
});
