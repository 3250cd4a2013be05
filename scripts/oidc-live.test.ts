import { createServer } from 'node:net';
import { afterAll, beforeAll, describe, expect, it, vi } from 'vitest';
import { addStaff } from '$lib/server/identity';
import { buildHouse, type House } from '$lib/server/testing/house';
import { CLIENT, startSignInService, type Account } from '../stand-ins/sign-in-service';
import { askOidc, takeOidc, type OidcAsked } from '$lib/server/sign-in';

vi.setConfig({ testTimeout: 60_000, hookTimeout: 60_000 });
const HERE = new URL('http://localhost:4999/sign-in');
const ACCOUNTS: Record<string, Account> = {
	penrose: { name: 'Ilse Penrose', email: 'penrose@saltmarsh.example' },
	mallory: { name: 'Mal Lory', email: 'penrose@saltmarsh.example', verified: false },
	stranger: { name: 'Some One', email: 'one@elsewhere.example' }
};
let house: House;
let penrose: string;
let service: Awaited<ReturnType<typeof startSignInService>>;

const freePort = () =>
	new Promise<number>((resolve) => {
		const server = createServer().listen(0, '127.0.0.1', () => {
			const { port } = server.address() as { port: number };
			server.close(() => resolve(port));
		});
	});

beforeAll(async () => {
	house = await buildHouse();
	penrose = await addStaff(house.otium.db, {
		signIn: 'penrose',
		name: 'Ilse Penrose',
		email: 'penrose@saltmarsh.example',
		password: 'high water at noon',
		roles: [{ role: 'coordinator', siteId: null }]
	});
	service = await startSignInService(await freePort(), ACCOUNTS, `${HERE.origin}/sign-in/oidc/back`);
	Object.assign(process.env, {
		OTIUM_OIDC_ISSUER: service.issuer,
		OTIUM_OIDC_CLIENT: CLIENT.id,
		OTIUM_OIDC_SECRET: CLIENT.secret
	});
});
afterAll(async () => {
	for (const name of ['ISSUER', 'CLIENT', 'SECRET']) delete process.env[`OTIUM_OIDC_${name}`];
	await service.close();
	await house.close();
});

/** A browser at the service: follows where it leads, with its cookies, and types a name. Where it is sent back to. */
async function throughService(address: URL, who: string): Promise<URL> {
	const jar = new Map<string, string>();
	let at = address;
	let body: string | undefined;
	for (let i = 0; i < 12; i++) {
		if (at.origin === HERE.origin) return at;
		const answer = await fetch(at, {
			method: body === undefined ? 'GET' : 'POST',
			body,
			redirect: 'manual',
			headers: {
				cookie: [...jar].map(([name, value]) => `${name}=${value}`).join('; '),
				...(body === undefined ? {} : { 'content-type': 'application/x-www-form-urlencoded' })
			}
		});
		for (const line of answer.headers.getSetCookie()) {
			const [name, ...value] = line.split(';')[0].split('=');
			jar.set(name, value.join('='));
		}
		body = undefined;
		const location = answer.headers.get('location');
		if (location) at = new URL(location, at);
		else body = `who=${who}`;
	}
	throw new Error('the service leads nowhere');
}
const from = { address: '10.0.0.1', agent: '' };
const take = (url: URL, asked: OidcAsked) => takeOidc(house.otium, url, asked, from);
const begin = () => askOidc(house.otium, HERE, '/');
const sessions = () => house.otium.db('staff_session').where({ staff_id: penrose }).count('* as n').first();

describe('the house’s own sign-in service, live', () => {
	it('signs in whom it knows, once for each code', async () => {
		const { address, asked } = await begin();
		const back = await throughService(address, 'penrose');
		expect(await take(back, asked)).toMatchObject({ ok: true });
		expect(await take(back, asked)).toEqual({ ok: false, trouble: 'failed' });
		// A password alone there is no second step here: the house asks for its own where one is needed.
		expect(await house.otium.db('staff').where({ id: penrose }).first('oidc_subject')).toEqual({
			oidc_subject: 'penrose'
		});
	});

	it('takes no code that was got in another browser: by its state, its nonce and its proof', async () => {
		const [victim, attacker] = [await begin(), await begin()];
		const back = await throughService(attacker.address, 'penrose');
		const before = await sessions();
		// As it came, in the victim's browser.
		expect(await take(back, victim.asked)).toMatchObject({ ok: false });
		// With the victim's state put in its place: the proof of possession and the nonce are the attacker's.
		const injected = new URL(back);
		injected.searchParams.set('state', victim.asked.state);
		expect(await take(injected, victim.asked)).toMatchObject({ ok: false });
		for (const change of [{ nonce: victim.asked.nonce }, { verifier: victim.asked.verifier }, { state: 'x' }]) {
			const fresh = await begin();
			const code = await throughService(fresh.address, 'penrose');
			expect(await take(code, { ...fresh.asked, ...change })).toMatchObject({ ok: false });
		}
		expect(await sessions()).toEqual(before);
	});

	it('takes nothing that another service has said, that is too old, or that has no code', async () => {
		const { address, asked } = await begin();
		const back = await throughService(address, 'penrose');
		const mixed = new URL(back);
		mixed.searchParams.set('iss', 'https://another.example');
		expect(await take(mixed, asked)).toMatchObject({ ok: false });
		for (const query of [
			'',
			`?state=${asked.state}`,
			`?error=access_denied&state=${asked.state}`,
			'?code=made-up&state=made-up'
		])
			expect(await take(new URL(`${HERE.origin}/sign-in/oidc/back${query}`), asked)).toMatchObject({ ok: false });
		house.clock.at += 11 * 60_000;
		expect(await take(back, asked)).toMatchObject({ ok: false });
	});

	it('lets in nobody by an address that the service has not verified, nor whom it knows and the house does not', async () => {
		for (const who of ['mallory', 'stranger']) {
			const { address, asked } = await begin();
			expect(await take(await throughService(address, who), asked)).toEqual({ ok: false, trouble: 'unknown' });
		}
		// The account belongs to its first subject: the same address from another is nobody.
		ACCOUNTS.second = { name: 'Ilse Penrose', email: 'penrose@saltmarsh.example' };
		const { address, asked } = await begin();
		expect(await take(await throughService(address, 'second'), asked)).toEqual({ ok: false, trouble: 'unknown' });
	});
});
