import { createHash, createPublicKey, verify } from 'node:crypto';
import fc from 'fast-check';
import { httpbis } from 'http-message-signatures';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { contentDigest } from '$core/access';
import { needsYou } from '$core/room';
import { DEFAULT_RULES } from '$core/session';
import { deviceByToken, hashToken, RequestSignatures } from '$lib/server/identity';
import { drawRoom } from '$lib/server/live';
import { call } from '$lib/server/testing/call';
import { buildHouse, openDoor, type House } from '$lib/server/testing/house';
import { Signer } from '$player/signer';
import { POST as answers } from './answers/+server';
import { POST as arrive } from './arrive/+server';
import { POST as beat } from './beat/+server';
import { POST as knock } from './knock/+server';
import { POST as leave } from './leave/+server';
import { GET as paper } from './paper/+server';
import { newSigner } from './browser-for-tests';
import { GET as picture } from './picture/+server';
import { GET as stream } from './stream/+server';
import { runs } from '$core/testing/runs';

const bytes = (text: string) => new TextEncoder().encode(text);

describe('what a browser signs', () => {
	it('is an HTTP message signature by RFC 9421, as another implementation reads it', async () => {
		const signer = await newSigner();
		signer.mark = 'mark';
		const body = '{"at":3}';
		const headers = await signer.headers('POST', '/sit/api/beat', bytes(body));
		const key = createPublicKey({
			key: Buffer.from(await signer.publicKey(), 'base64url'),
			format: 'der',
			type: 'spki'
		});
		const params: unknown[] = [];
		const lookUp = async () => ({
			algs: ['ecdsa-p256-sha256' as const],
			verify: async (data: Buffer, signature: Buffer, said?: object) => {
				params.push(said);
				return verify('sha256', data, { key, dsaEncoding: 'ieee-p1363' }, signature);
			}
		});
		const request = { method: 'POST', url: 'http://localhost/sit/api/beat', headers };
		const requiredFields = ['@method', '@path', 'content-digest'];
		const check = (asked: typeof request) => httpbis.verifyMessage({ keyLookup: lookUp, requiredFields }, asked);
		expect(await check(request)).toBe(true);
		expect(params).toMatchObject([{ alg: 'ecdsa-p256-sha256', nonce: expect.stringMatching(/^mark\..+\.1$/) }]);
		expect(await check({ ...request, url: 'http://localhost/sit/api/hand-in' })).toBe(false);
		// RFC 9530: the digest of the body, as a byte sequence of structured fields.
		expect(headers['content-digest']).toBe(`sha-256=:${createHash('sha256').update(body).digest('base64')}:`);
	});

	it('holds once, in whatever order it comes, and not when it comes far too late', async () => {
		await fc.assert(
			fc.asyncProperty(fc.array(fc.integer({ min: 1, max: 200 }), { maxLength: 40 }), async (counts) => {
				const signatures = new RequestSignatures();
				const signer = await newSigner();
				const publicKey = await signer.publicKey();
				const request = async () => {
					const headers = await signer.headers('POST', '/x', bytes(''));
					return () => signatures.check('s', publicKey, 'POST', '/x', (name) => headers[name] ?? null);
				};
				const first = await (await request())();
				if (first.outcome !== 'anew') throw new Error('a mark was guessed');
				signer.mark = first.mark;
				const all = [];
				for (let i = 0; i < Math.max(0, ...counts); i++) all.push(await request());
				const seen = new Set<number>();
				let highest = 0;
				for (const count of counts) {
					const isRight = !seen.has(count) && highest - count < 64;
					// Two at once, as from somebody who has copied it: it holds for one of them.
					const outcomes = (await Promise.all([all[count - 1](), all[count - 1]()])).map(({ outcome }) => outcome);
					expect([count, ...outcomes.sort()]).toEqual([count, isRight ? 'right' : 'wrong', 'wrong']);
					seen.add(count);
					highest = Math.max(highest, count);
				}
			}),
			{ numRuns: runs(15) }
		);
	});

	it('counts anew for a device that is loaded anew over and over, and nothing from before holds then', async () => {
		const signatures = new RequestSignatures();
		const keys = await crypto.subtle.generateKey({ name: 'ECDSA', namedCurve: 'P-256' }, true, ['sign', 'verify']);
		const publicKey = await new Signer(keys).publicKey();
		const old: (() => Promise<{ outcome: string }>)[] = [];
		let mark = '';
		for (let page = 0; page < 40; page++) {
			const signer = new Signer(keys);
			signer.mark = mark;
			const ask = async () => {
				const headers = await signer.headers('GET', '/x', bytes(''));
				const check = () => signatures.check('s', publicKey, 'GET', '/x', (name) => headers[name] ?? null);
				old.push(check);
				return check();
			};
			let checked = await ask();
			if (checked.outcome === 'anew') {
				signer.mark = mark = checked.mark;
				checked = await ask();
			}
			expect(checked.outcome).toBe('right');
		}
		for (const check of old) expect((await check()).outcome).not.toBe('right');
	});
});

let house: House;
let code: string;
beforeEach(async () => {
	house = await buildHouse({ rules: { admission: 'automatic' } });
	code = await openDoor(house);
});
afterEach(() => house.close());

/** A browser with cookies and a key of its own; null: it can't sign. */
class Device {
	jar = new Map<string, string>();
	agent = 'Browser A';
	address = '10.0.0.1';
	constructor(readonly signer: Signer | null) {}

	async come(nth = 0) {
		const { number, family } = house.people[nth];
		const met = await call(knock as never, { otium: house.otium, body: { code, number, family }, jar: this.jar });
		const publicKey = (await this.signer?.publicKey()) ?? null;
		const body = { note: met.body.note, commandId: `come-${Math.random()}`, deviceName: 'Laptop', publicKey };
		return call(arrive as never, { otium: house.otium, body, jar: this.jar });
	}

	/** What it asks for, signed if it can. */
	async headers(method: 'GET' | 'POST', path: string, body: unknown) {
		const text = method === 'GET' ? '' : JSON.stringify(body ?? {});
		return { 'user-agent': this.agent, ...(await this.signer?.headers(method, path, bytes(text))) };
	}

	async send(handler: unknown, method: 'GET' | 'POST', path: string, body?: unknown, headers?: Record<string, string>) {
		const { otium } = house;
		const token = this.jar.get('otium-sitting') ?? '';
		const asked = {
			otium,
			body,
			method,
			path,
			device: await deviceByToken(otium.db, token, otium.now()),
			signIn: hashToken(token),
			jar: this.jar,
			address: this.address,
			headers: headers ?? (await this.headers(method, path, body))
		};
		return call(handler as never, asked);
	}

	/** The same, again under the new mark where that is asked for. */
	async ask(handler: unknown, method: 'GET' | 'POST', path: string, body?: unknown) {
		const answer = await this.send(handler, method, path, body);
		if (answer.body.code !== 'sign_anew') return answer;
		this.signer!.mark = answer.body.mark as string;
		return this.send(handler, method, path, body);
	}
}
const seatOf = async () => (await drawRoom(house.otium.db, 's1', house.otium.now()))!.seats[0];
const LOOK = [picture, 'GET', '/sit/api/picture'] as const;

describe('a device that signs', () => {
	let own: Device;
	beforeEach(async () => {
		own = new Device(await newSigner());
		expect((await own.come()).status).toBe(200);
		expect((await own.ask(...LOOK)).status).toBe(200);
	});

	it('is let in by the door, and goes on after a restart of the server', async () => {
		expect((await seatOf()).state).toBe('let_in');
		await house.restart();
		expect((await own.send(...LOOK)).body.code).toBe('sign_anew');
		expect((await own.ask(...LOOK)).status).toBe(200);
	});

	it.each([
		['nothing', async () => null],
		['a key of its own', newSigner]
	])('whoever has its cookies and signs with %s gets nothing, and the proctor is told', async (_, key) => {
		const thief = new Device(await key());
		thief.jar = new Map(own.jar);
		for (const [handler, method, path] of [
			LOOK,
			[paper, 'GET', '/sit/api/paper'],
			[stream, 'GET', '/sit/api/stream'],
			[answers, 'POST', '/sit/api/answers'],
			[leave, 'POST', '/sit/api/leave'],
			[beat, 'POST', '/sit/api/beat']
		] as const)
			expect([path, (await thief.ask(handler, method, path)).body.code]).toEqual([path, 'not_signed']);
		const seat = await seatOf();
		// Told, and not told without end.
		expect(seat.noted).toMatchObject([{ what: 'forged', times: 5 }]);
		expect(
			needsYou([seat], [], { questions: 6, leavingsAllowed: 0, limitMinutes: 60, opens: 0 }, house.otium.now())[0]
		).toMatchObject({
			kind: 'copied',
			tone: 'brick'
		});
		// Nor does it help to go through the door with them.
		expect((await thief.come()).body.code).toBe('second_device');
		expect((await own.ask(...LOOK)).status).toBe(200);
	});

	it.each([
		['again', {}],
		['for something else', { path: '/sit/api/hand' }],
		['with another body', { body: { at: 5 } }],
		['in another way', { method: 'GET' as const }]
	])('what it has signed is worth nothing when it is sent %s', async (_, change) => {
		const asked = { method: 'POST' as const, path: '/sit/api/beat', body: { at: 1 } };
		const headers = await own.headers(asked.method, asked.path, asked.body);
		const send = (one: { method: 'GET' | 'POST'; path: string; body: unknown }) =>
			own.send(beat, one.method, one.path, one.body, headers);
		if (Object.keys(change).length === 0) expect((await send(asked)).status).toBe(200);
		expect((await send({ ...asked, ...change })).body.code).toBe('not_signed');
	});

	it('its stream is signed in the address, which holds once', async () => {
		const path = '/sit/api/stream';
		const query = new URL(await own.signer!.address(path), 'http://localhost').search;
		const token = own.jar.get('otium-sitting')!;
		const open = async () => {
			const { otium } = house;
			const url = new URL(`http://localhost${path}${query}`);
			const device = await deviceByToken(otium.db, token, otium.now());
			const locals = { otium, device, signIn: hashToken(token), address: '10.0.0.1', digest: null };
			const response = await stream({ request: new Request(url), url, params: {}, locals, cookies: {} } as never);
			await response.body?.cancel();
			return response.status;
		};
		expect([await open(), await open()]).toEqual([200, 401]);
	});

	it('that comes from another address, or through the door once more, is noted and not hindered', async () => {
		own.address = '10.0.9.9';
		expect((await own.ask(...LOOK)).status).toBe(200);
		await own.come();
		expect((await seatOf()).noted).toMatchObject([{ what: 'other_address' }, { what: 'signed_in_anew' }]);
		expect(
			needsYou(
				[await seatOf()],
				[],
				{ questions: 6, leavingsAllowed: 0, limitMinutes: 60, opens: 0 },
				house.otium.now()
			)
		).toEqual([]);
	});
});

describe('a device that can’t sign', () => {
	it('waits for the proctor also where the door lets in by itself, and says so', async () => {
		const plain = new Device(null);
		expect((await plain.come()).status).toBe(200);
		expect(await seatOf()).toMatchObject({ state: 'at_door', unsigned: true });
		expect(DEFAULT_RULES.admission).toBe('proctor');
	});

	it('whose cookie is in use in a second browser is told to the proctor', async () => {
		const plain = new Device(null);
		await plain.come();
		const copy = new Device(null);
		copy.jar = new Map(plain.jar);
		copy.agent = 'Browser B';
		for (const one of [plain, copy, plain]) expect((await one.ask(...LOOK)).status).toBe(200);
		expect((await seatOf()).noted).toMatchObject([{ what: 'second_line', times: 2 }]);
	});
});

it('takes a key on P-256 and no other', async () => {
	const { number, family } = house.people[0];
	const met = await call(knock as never, { otium: house.otium, body: { code, number, family } });
	const rsa = await crypto.subtle.generateKey(
		{ name: 'RSASSA-PKCS1-v1_5', modulusLength: 2048, publicExponent: new Uint8Array([1, 0, 1]), hash: 'SHA-256' },
		true,
		['sign', 'verify']
	);
	const spki = Buffer.from(await crypto.subtle.exportKey('spki', rsa.publicKey)).toString('base64url');
	for (const publicKey of ['', 'AAAA', contentDigest('x'), spki.slice(0, 300)]) {
		const body = { note: met.body.note, commandId: 'come-anew', deviceName: 'Laptop', publicKey };
		expect((await call(arrive as never, { otium: house.otium, body })).status).toBe(400);
	}
});
