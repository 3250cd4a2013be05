import { createHash, generateKeyPairSync, sign } from 'node:crypto';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { MINUTE } from '$core/time';
import { addStaff, hashToken, saveStaff } from '$lib/server/identity';
import { wordsOf } from '$lib/server/mail';
import { askForLink, invite, offerApp, openSession, ownerOfLink, signIn, staffByToken } from '$lib/server/sign-in';
import { call } from '$lib/server/testing/call';
import { buildHouse, COORDINATOR, type House } from '$lib/server/testing/house';
import { POST as confirm } from '../(staff)/confirm/+server';
import { POST as ownSecond } from '../(staff)/you/sign-in/second/+server';
import { POST as enrol } from './enrol/+server';
import { POST as newPassword } from './new-password/+server';
import { POST as passkey } from './passkey/+server';
import { POST as second } from './second/+server';

const RIGHT = 'high water at noon';
let house: House;
let penrose: string;
let holt: string;
beforeEach(async () => {
	house = await buildHouse();
	const one = (signIn: string, name: string, email: string) =>
		addStaff(house.otium.db, { signIn, name, email, password: RIGHT, roles: [{ role: 'coordinator', siteId: null }] });
	penrose = await one('penrose', 'Ilse Penrose', 'penrose@saltmarsh.example');
	holt = await one('holt', 'Bram Holt', 'holt@saltmarsh.example');
});
afterEach(() => house.close());

/** Asks in a sign-in, or in none. */
async function ask(handler: unknown, body: object, token: string | null = null, jar = new Map<string, string>()) {
	const session = token === null ? null : await staffByToken(house.otium, token);
	return call(handler as never, {
		otium: house.otium,
		body,
		jar,
		staffSession: session,
		staff: session?.awaits === null ? session.staff : null,
		signIn: token === null ? null : hashToken(token)
	});
}
const from = { address: '10.0.0.1', agent: '' };
const halfDone = async (id: string) => (await openSession(house.otium, id, from, false)).token;
const within = async (id: string) => (await openSession(house.otium, id, from, true)).token;
const awaits = async (token: string) => (await staffByToken(house.otium, token))!.awaits;
const isConfirmed = async (token: string) => (await staffByToken(house.otium, token))!.isConfirmed;

const b64 = (bytes: Uint8Array) => Buffer.from(bytes).toString('base64url');
const sha256 = (bytes: string | Uint8Array) => createHash('sha256').update(bytes).digest();

/** A passkey on P-256 in software: what it answers is laid out by Web Authentication, level 3, 6.1 and 6.3.3. */
async function givePasskey(staffId: string) {
	const { privateKey, publicKey } = generateKeyPairSync('ec', { namedCurve: 'P-256' });
	const { x, y } = publicKey.export({ format: 'jwk' });
	// COSE_Key of RFC 9053, 7.1.1: kty 2, alg -7, crv 1, x, y.
	const cose = Buffer.concat([
		Buffer.from('a5010203262001215820', 'hex'),
		Buffer.from(x!, 'base64url'),
		Buffer.from('225820', 'hex'),
		Buffer.from(y!, 'base64url')
	]);
	const id = b64(sha256(staffId));
	await house.otium.db('passkey').insert({
		id,
		staff_id: staffId,
		name: 'Key',
		public_key: b64(cose),
		counter: 0,
		transports: '[]',
		made_at: 0
	});
	let count = 0;
	return (challenge: string) => {
		const clientData = Buffer.from(JSON.stringify({ type: 'webauthn.get', challenge, origin: 'http://localhost' }));
		const counter = Buffer.alloc(4);
		counter.writeUInt32BE(++count);
		const authenticatorData = Buffer.concat([sha256('localhost'), Buffer.from([0b101]), counter]);
		const signature = sign('sha256', Buffer.concat([authenticatorData, sha256(clientData)]), privateKey);
		return {
			id,
			rawId: id,
			type: 'public-key',
			clientExtensionResults: {},
			response: {
				clientDataJSON: b64(clientData),
				authenticatorData: b64(authenticatorData),
				signature: b64(signature)
			}
		};
	};
}
type Challenge = { id: string; options: { challenge: string } };

describe('a passkey', () => {
	it('is a second step where it is the owner’s, and was asked for in that very sign-in', async () => {
		const keys = { [penrose]: await givePasskey(penrose), [holt]: await givePasskey(holt) };
		const tokens = {
			half: await halfDone(penrose),
			other: await halfDone(penrose),
			holts: await halfDone(holt),
			out: null
		};
		for (const [asker, by] of Object.entries(tokens))
			for (const whose of [penrose, holt]) {
				const challenge = (await ask(passkey, { act: 'ask' }, by)).body as unknown as Challenge;
				const use = { act: 'use', id: challenge.id, response: keys[whose](challenge.options.challenge), to: '/' };
				const answer = await ask(passkey, use, tokens.half);
				const isRight = asker === 'half' && whose === penrose;
				expect([asker, whose === penrose, answer.status]).toEqual([asker, whose === penrose, isRight ? 200 : 422]);
				if (isRight) tokens.half = await halfDone(penrose);
				else expect(await awaits(tokens.half)).toBe('second');
				// A challenge is answered once, also where the answer was wrong.
				expect((await ask(passkey, use, by)).status).toBe(422);
			}
	});

	it('signs in by itself, and confirms its owner in the sign-in that asked and in no other', async () => {
		const key = await givePasskey(penrose);
		const [here, there] = [await within(penrose), await within(penrose)];
		house.clock.at += (61 * MINUTE) / 2;
		await isConfirmed(here);
		await isConfirmed(there);
		house.clock.at += (61 * MINUTE) / 2;
		const challenge = (await ask(confirm, { act: 'ask' }, here)).body as unknown as Challenge;
		const use = { act: 'use', id: challenge.id, response: key(challenge.options.challenge) };
		expect((await ask(confirm, use, there)).status).toBe(422);
		const again = (await ask(confirm, { act: 'ask' }, here)).body as unknown as Challenge;
		expect((await ask(confirm, { ...use, id: again.id, response: key(again.options.challenge) }, here)).status).toBe(
			200
		);
		expect([await isConfirmed(here), await isConfirmed(there)]).toEqual([true, false]);
		// What was asked for to sign in confirms nobody, and the other way round.
		const out = (await ask(passkey, { act: 'ask' })).body as unknown as Challenge;
		expect((await ask(confirm, { ...use, id: out.id, response: key(out.options.challenge) }, there)).status).toBe(422);
		const jar = new Map<string, string>();
		const fresh = (await ask(passkey, { act: 'ask' })).body as unknown as Challenge;
		const enters = { ...use, id: fresh.id, response: key(fresh.options.challenge), to: '/' };
		expect((await ask(passkey, enters, null, jar)).status).toBe(200);
		expect(await awaits(jar.get('otium-staff')!)).toBeNull();
	});
});

it('a step is taken by a sign-in that waits for it, and by none that is through: nothing confirms who is there but proof', async () => {
	await givePasskey(penrose);
	const token = await within(penrose);
	house.clock.at += (61 * MINUTE) / 2;
	await isConfirmed(token);
	house.clock.at += (61 * MINUTE) / 2;
	expect(await isConfirmed(token)).toBe(false);
	for (const [handler, body] of [
		[enrol, { to: '/' }],
		[second, { code: '123456', to: '/' }],
		[newPassword, { link: null, password: 'an anchor in the reeds', to: '/' }]
	] as const)
		expect((await ask(handler, body, token)).status).toBe(401);
	expect(await isConfirmed(token)).toBe(false);
	for (const body of [{ act: 'offer_app' }, { act: 'ask_passkey' }, { act: 'remove_app' }, { act: 'new_codes' }])
		expect((await ask(ownSecond, body, token)).body.code).toBe('confirm_identity');
	// Nor does one that waits for its second step set up another.
	const half = await halfDone(penrose);
	expect((await ask(ownSecond, { act: 'offer_app' }, half)).status).toBe(401);
	expect((await ask(enrol, { to: '/' }, half)).status).toBe(401);
	await offerApp(house.otium, penrose);
	expect(await awaits(half)).toBe('second');
});

describe('a link to a password', () => {
	const linkTo = async (address: string) => {
		await expect.poll(() => house.otium.db('mail').where({ to_address: address }).first('id')).toBeTruthy();
		const [mail] = await house.otium.db('mail').where({ to_address: address }).orderBy('made_at', 'desc').limit(1);
		return new URL(/http\S+/.exec(wordsOf(house.otium.db, mail))![0]).searchParams.get('link')!;
	};
	const owner = (link: string) => ownerOfLink(house.otium.db, link, house.clock.at);
	const base = {
		signIn: 'holt',
		name: 'Bram Holt',
		password: null,
		roles: [{ role: 'coordinator' as const, siteId: null }]
	};

	it.each([
		['the address', { email: 'bram@saltmarsh.example' }],
		['the sign-in', { signIn: 'b.holt' }],
		['a role', { roles: [{ role: 'proctor' as const, siteId: null }] }],
		['a password', { password: 'an anchor in the reeds' }]
	])('ends when a coordinator changes %s, and stays when it is the name', async (_, change) => {
		await invite(house.otium, COORDINATOR, holt, 'https://exams.example', true);
		const link = await linkTo('holt@saltmarsh.example');
		const as = { ...base, id: holt, email: 'holt@saltmarsh.example' };
		expect(await saveStaff(house.otium, COORDINATOR, { ...as, name: 'Bram A. Holt' })).toMatchObject({
			endsLink: false
		});
		expect(await owner(link)).toMatchObject({ staffId: holt });
		expect(await saveStaff(house.otium, COORDINATOR, { ...as, ...change })).toMatchObject({ endsLink: true });
		expect(await owner(link)).toBeNull();
	});

	it('is not taken away by a stranger who asks for another', async () => {
		await invite(house.otium, COORDINATOR, holt, 'https://exams.example', true);
		const link = await linkTo('holt@saltmarsh.example');
		house.clock.at += MINUTE;
		await askForLink(house.otium, 'holt', 'https://exams.example', '10.0.0.9');
		await expect.poll(() => house.otium.db('mail').where({ kind: 'password' })).toHaveLength(2);
		expect(await owner(link)).toMatchObject({ staffId: holt });
		house.clock.at += 2 * 60 * MINUTE;
		expect(await owner(link)).toMatchObject({ staffId: holt });
	});
});

describe('wrong passwords', () => {
	const trying = async (name: string, address = '10.0.0.1') => {
		const result = await signIn(house.otium, name, 'guess', { address, agent: '' });
		return result.ok ? -1 : result.waitSeconds;
	};

	it('are counted for the account, by whichever of its names it is tried', async () => {
		const looked = [];
		for (let i = 0; i < 12; i++) looked.push(await trying(i % 2 ? 'holt' : 'HOLT@saltmarsh.example'));
		expect(looked.filter((wait) => wait === 0)).toHaveLength(6);
	});

	it('for names that are nobody’s fill no memory, and wait like the others', async () => {
		const { limits } = house.otium;
		const made = new Set<string>();
		const { consume } = limits;
		limits.consume = (guessed, what, ...rest) => {
			made.add(what);
			return consume.call(limits, guessed, what, ...rest);
		};
		for (let i = 0; i < 20_000; i++) await askForLink(house.otium, `made up ${i}`, 'x', `10.0.${i % 200}.${i % 251}`);
		expect(made.size).toBeLessThanOrEqual(2 ** 14);
		const waits = [];
		for (let i = 0; i < 7; i++) waits.push(await trying('nobody at all'));
		expect(waits).toEqual([0, 0, 0, 0, 0, 0, 2]);
	});
});
