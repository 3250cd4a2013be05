import fc from 'fast-check';
import { isHttpError, isRedirect } from '@sveltejs/kit';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { StaffMember } from '$core/access';
import { bringToWork, buildHouse, openDoor, type House } from '$lib/server/testing/house';
import { runs } from '$core/testing/runs';

/** Every route there is, found and not listed, so that a new one is tried as well. */
const ROUTES = import.meta.glob<Record<string, unknown>>('./**/+server.ts');
/** What pages load, by the same measure: a redirect or a refusal is an answer, a fault is not. */
const PAGES = import.meta.glob<Record<string, unknown>>('./**/+page.server.ts');
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'] as const;

/** Names that routes read, so that what is made up comes closer to what is meant. */
const FIELDS = [
	...'act address answers at attachment battery body candidateId client code commandId date delta device deviceName'.split(
		' '
	),
	...'done family file format given grantIds groupIds hand id ids input kind lapses message minutes name note number on'.split(
		' '
	),
	...'opens people person proof questionId reason refusalId results revisions roles rules seat seen sessionId shows'.split(
		' '
	),
	...'sittingId sittingIds staffId stays startWord finishWord text time to until up value values what whom window'.split(
		' '
	)
];
const IDS = [
	's1',
	'sit0',
	'can0',
	'quayside',
	'chart',
	'numbers',
	'watch',
	'ode',
	'winter',
	'q1',
	'',
	'..',
	'x'.repeat(70),
	'\u0000',
	'💧'
];

const leaf = fc.oneof(
	fc.constantFrom(...IDS, 'hold', 'let_in', 'extra_time', 'session', 'minutes', '2026-12-08', '09:00', 'true'),
	fc.string({ maxLength: 40 }),
	fc.integer(),
	fc.double(),
	fc.boolean(),
	fc.constant(null)
);
const { value: json } = fc.letrec<{ value: unknown }>((tie) => ({
	value: fc.oneof(
		{ maxDepth: 3, withCrossShrink: true },
		leaf,
		fc.array(tie('value'), { maxLength: 4 }),
		fc.dictionary(fc.constantFrom(...FIELDS), tie('value'), { maxKeys: 8 })
	)
}));
const body = fc.oneof(
	{
		weight: 6,
		arbitrary: fc.dictionary(fc.constantFrom(...FIELDS), json, { maxKeys: 12 }).map((value) => JSON.stringify(value))
	},
	{ weight: 1, arbitrary: json.map((value) => JSON.stringify(value) ?? '') },
	{ weight: 1, arbitrary: fc.string({ maxLength: 200 }) }
);
const query = fc.dictionary(
	fc.constantFrom('q', 'only', 'rooms', 'page', 'note', 'code', 'session', 'site', 'zone', 'format', 'fields', 'last'),
	fc.string({ maxLength: 30 }),
	{ maxKeys: 3 }
);

const RUNS = { numRuns: runs(25) };

let house: House;
let epoch = 0;
beforeAll(async () => {
	house = await buildHouse();
	epoch = await bringToWork(house, 0, await openDoor(house));
});
afterAll(() => house.close());

const ODE: StaffMember = { id: 'ode', name: 'Maren Ode', roles: [{ role: 'coordinator', siteId: null }] };

describe('whatever is sent to whatever route, it is answered and never a 500', () => {
	it('finds the routes', () => expect(Object.keys(ROUTES).length).toBeGreaterThan(50));

	it.each(Object.keys(ROUTES))('%s', async (path) => {
		const route = await ROUTES[path]();
		const names = [...path.matchAll(/\[([a-z]+)\]/g)].map(([, name]) => name);
		const handlers = METHODS.filter((method) => typeof route[method] === 'function');
		expect(handlers.length).toBeGreaterThan(0);
		for (const method of handlers) {
			const handler = route[method] as (event: unknown) => Promise<Response>;
			await fc.assert(
				fc.asyncProperty(
					body,
					query,
					fc.array(fc.constantFrom(...IDS), { minLength: names.length, maxLength: names.length }),
					fc.constantFrom('application/json', 'text/plain', 'multipart/form-data; boundary=x', ''),
					async (sent, asked, values, type) => {
						const url = new URL('http://localhost/');
						for (const [key, value] of Object.entries(asked)) url.searchParams.set(key, value);
						const hasBody = method !== 'GET';
						const event = {
							request: new Request(url, {
								method,
								headers: type ? { 'content-type': type } : {},
								body: hasBody ? sent : undefined
							}),
							url,
							params: Object.fromEntries(names.map((name, i) => [name, values[i]])),
							locals: {
								otium: house.otium,
								staff: ODE,
								device: { sittingId: 'sit0', epoch },
								address: '127.0.0.1',
								client: null
							},
							cookies: { get: () => undefined, set: () => {}, delete: () => {} },
							setHeaders: () => {},
							getClientAddress: () => '127.0.0.1'
						};
						let status: number;
						try {
							const response = await handler(event);
							status = response.status;
							await response.body?.cancel();
						} catch (error) {
							if (!isRedirect(error) && !isHttpError(error)) throw error;
							status = error.status;
						}
						expect(status).toBeLessThan(500);
					}
				),
				RUNS
			);
		}
	});

	it.each(Object.keys(PAGES))('%s', async (path) => {
		const { load } = await PAGES[path]();
		if (typeof load !== 'function') return expect(Object.keys(await PAGES[path]())).toContain('actions');
		const names = [...path.matchAll(/\[([a-z]+)\]/g)].map(([, name]) => name);
		await fc.assert(
			fc.asyncProperty(
				query,
				fc.array(fc.constantFrom(...IDS), { minLength: names.length, maxLength: names.length }),
				async (asked, values) => {
					const url = new URL('http://localhost/');
					for (const [key, value] of Object.entries(asked)) url.searchParams.set(key, value);
					try {
						await load({
							url,
							params: Object.fromEntries(names.map((name, i) => [name, values[i]])),
							locals: { otium: house.otium, staff: ODE, device: null, address: '127.0.0.1', client: null },
							parent: async () => ({ now: house.otium.now(), site: { name: 'Quayside', zone: 'Europe/London' } }),
							depends: () => {},
							setHeaders: () => {},
							cookies: { get: () => undefined, set: () => {}, delete: () => {} }
						});
					} catch (error) {
						if (!isRedirect(error) && !isHttpError(error)) throw error;
						expect(error.status).toBeLessThan(500);
					}
				}
			),
			RUNS
		);
	});
});
