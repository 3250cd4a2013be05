import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import type { StaffMember } from '$core/access';
import { call } from '$lib/server/testing/call';
import { buildHouse, type House } from '$lib/server/testing/house';

/** Every route there is, found and not listed, so that a new one is looked at as well. */
const ROUTES = import.meta.glob<Record<string, unknown>>('./**/+server.ts', { eager: true });
const METHODS = ['GET', 'POST', 'PUT', 'PATCH', 'DELETE'];
type Handler = ((event: never) => Promise<Response>) & { audience?: 'staff' | 'candidate' };
const HANDLERS = Object.entries(ROUTES).flatMap(([file, module]) =>
	METHODS.filter((method) => method in module).map((method): [string, Handler] => [
		`${method} ${file.slice(1).replace('/+server.ts', '')}`,
		module[method] as Handler
	])
);
/** They ask nobody: that the server lives, who asks is forgotten, who asks is sent to a service that asks them. */
const OPEN = ['GET /health', 'GET /sign-in/oidc', 'POST /health', 'POST /sign-out'];
/** For whoever is on the way in, or about themselves: it takes a sign-in, and no role. */
const ONES_OWN = /^POST \/(\(staff\)\/you\/sign-in\/second|sign-in\/(enrol|second))$/;

let house: House;
beforeAll(async () => (house = await buildHouse()));
afterAll(() => house.close());

/** Holds no role anywhere, as somebody whose last one was just taken. */
const NOBODY: StaffMember = { id: 'nobody', name: 'Nobody', roles: [] };
const params = { id: 's1', sitting: 'sit0', snapshot: 'x', incident: 'x', what: 'register' };

describe('every route', () => {
	it('there are many, and each says whose it is but for those that ask nobody', () => {
		expect(HANDLERS.length).toBeGreaterThan(80);
		expect(
			HANDLERS.filter(([, handler]) => !handler.audience)
				.map(([name]) => name)
				.sort()
		).toEqual(OPEN);
	});

	it.each(HANDLERS.filter(([, handler]) => handler.audience === 'staff'))(
		'%s is closed to whoever is signed out, and to staff without a role',
		async (name, handler) => {
			expect((await call(handler, { otium: house.otium, params })).status).toBe(401);
			if (ONES_OWN.test(name)) return;
			const asked = await call(handler, { otium: house.otium, params, staff: NOBODY });
			// What is malformed is said before it is looked at whose it is; what is theirs alone is empty.
			expect([400, 403, 404, 415]).toContain(asked.status === 200 ? emptyOf(asked) : asked.status);
		}
	);

	it.each(HANDLERS.filter(([name, handler]) => handler.audience === 'candidate' && name.startsWith('GET')))(
		'%s shows nothing of a sitting to a browser without a device',
		async (_, handler) => {
			const { text } = await call(handler, { otium: house.otium, params });
			expect(text).not.toMatch(/Family0|DO-1001|even\?/);
		}
	);
});

/** A list of nothing is as good as a refusal. */
function emptyOf({ text }: { text: string }): number {
	return text.includes('s1') || text.includes('Family') ? 200 : 403;
}
