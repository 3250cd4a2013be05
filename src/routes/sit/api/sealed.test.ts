import { generateKeyPairSync, sign, verify, createPublicKey, type KeyObject } from 'node:crypto';
import { httpbis } from 'http-message-signatures';
import { nanoid } from 'nanoid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { clientFor, clientSignatureBase, clientSignatureParts, isAtLeast } from '$core/access';
import { DEFAULT_RULES } from '$core/session';
import {
	arrive,
	deviceByToken,
	enrol,
	hashToken,
	knock,
	listClientDevices,
	makeChallenge,
	openEnrolment,
	proofText,
	proveClient,
	readClientNote,
	rehearsalNote,
	rehearse,
	withdrawClientDevice
} from '$lib/server/identity';
import { slipsFor } from '$lib/server/session';
import { act } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import {
	arriveAt,
	buildHouse,
	COORDINATOR,
	nameOnDevice,
	openDoor,
	PROCTOR,
	type House
} from '$lib/server/testing/house';
import { POST as answers } from './answers/+server';
import { newSigner } from './browser-for-tests';
import { POST as begin } from './begin/+server';
import { POST as handIn } from './hand-in/+server';
import { GET as paper } from './paper/+server';
import { GET as picture } from './picture/+server';

let house: House;
const sealed = { ...DEFAULT_RULES.lockdown, level: 'sealed' as const, clientVersion: '2.1' };
let client: Client;
beforeEach(async () => {
	house = await buildHouse({ rules: { lockdown: sealed } });
	client = await newClient();
});
afterEach(() => house.close());

/** A device with a key of its own, as the sealed client makes it. */
type Client = { id: string; key: KeyObject; publicKey: string };
async function newClient(code?: string): Promise<Client> {
	const { privateKey, publicKey } = generateKeyPairSync('ed25519');
	const sent = publicKey.export({ format: 'der', type: 'spki' }).toString('base64url');
	const asked = { name: 'Loft 12', publicKey: sent, address: '10.0.0.1' };
	const opened = code ?? (await openEnrolment(house.otium, COORDINATOR, 'quayside')).code;
	const enrolled = await enrol(house.otium, { ...asked, code: opened });
	if (!enrolled.ok) throw new Error(enrolled.message);
	return { id: enrolled.deviceId, key: privateKey, publicKey: sent };
}
async function prove(
	change: { version?: string; by?: Client; nonce?: string; signature?: string; says?: string } = {}
) {
	const { id, key } = change.by ?? client;
	const nonce = change.nonce ?? (await makeChallenge(house.otium)).nonce;
	const version = change.version ?? '2.1';
	const signature =
		change.signature ?? sign(null, Buffer.from(proofText(nonce, change.says ?? version)), key).toString('base64');
	return proveClient(house.otium, { nonce, device: id, version, signature, address: '10.0.0.1' });
}
async function clientOf(version: string) {
	const proved = await prove({ version });
	if (!proved.ok) throw new Error(proved.message);
	return readClientNote(house.otium, proved.note, '10.0.0.1');
}

describe('enrolling', () => {
	it('takes a code that holds for two hours, and a key that the device has made', async () => {
		const { code } = await openEnrolment(house.otium, COORDINATOR, 'quayside');
		const asked = { code, name: 'Loft 13', publicKey: client.publicKey, address: '10.0.0.2' };
		expect(await enrol(house.otium, { ...asked, publicKey: 'AAAA' })).toMatchObject({ ok: false });
		expect(await enrol(house.otium, { ...asked, code: code.toLowerCase().replaceAll('-', ' ') })).toMatchObject({
			ok: true
		});
		house.clock.at += 2 * 3_600_000 + 1;
		expect(await enrol(house.otium, asked)).toMatchObject({ ok: false });
		expect((await listClientDevices(house.otium.db)).map((one) => one.name)).toEqual(['Loft 12', 'Loft 13']);
		// What is stored lets nobody enrol, and nobody pass for a device.
		const stored = JSON.stringify([await house.otium.db('client_enrolment'), await house.otium.db('logbook')]);
		expect(stored.includes(code) || stored.includes(code.replaceAll('-', ''))).toBe(false);
	});

	it('hundreds of guessed codes find none, and take nothing from whoever has the right one at the same address', async () => {
		const asked = { name: 'x', publicKey: client.publicKey, address: '10.9.9.9' };
		const { code } = await openEnrolment(house.otium, COORDINATOR, 'quayside');
		const tries = await Promise.all(
			Array.from({ length: 600 }, (_, i) => enrol(house.otium, { ...asked, code: `AAAA-AAA-${i}` }))
		);
		expect(tries.filter((one) => one.ok)).toEqual([]);
		expect(await enrol(house.otium, { ...asked, code })).toMatchObject({ ok: true });
	});
});

describe('the proof at the door', () => {
	it('is taken once, in its minute, by a device that holds', async () => {
		const { nonce } = await makeChallenge(house.otium);
		expect(await prove({ nonce })).toMatchObject({ ok: true });
		expect(await prove({ nonce })).toMatchObject({ ok: false, message: expect.stringMatching(/used or has expired/) });
		const late = (await makeChallenge(house.otium)).nonce;
		house.clock.at += 61_000;
		expect(await prove({ nonce: late })).toMatchObject({ ok: false });
		expect(await prove({ by: { ...(await newClient()), id: client.id } })).toMatchObject({
			ok: false,
			message: expect.stringMatching(/could not prove itself/)
		});
		expect(await prove({ signature: '' })).toMatchObject({ ok: false });
		await withdrawClientDevice(house.otium, COORDINATOR, client.id);
		expect(await prove()).toMatchObject({ ok: false });
	});

	it('says which version it is, and no other', async () => {
		expect(await prove({ version: '9999.9999', says: '2.1' })).toMatchObject({ ok: false });
	});

	it('holds for minutes and for the address that it was given to, and ends with its device', async () => {
		const proved = await prove();
		if (!proved.ok) throw new Error(proved.message);
		const at = (address: string) => readClientNote(house.otium, proved.note, address);
		expect(await at('10.0.0.1')).toEqual({ siteId: 'quayside', version: '2.1', deviceId: client.id });
		expect(await at('10.0.0.2')).toBeNull();
		await withdrawClientDevice(house.otium, COORDINATOR, client.id);
		expect(await at('10.0.0.1')).toBeNull();
		house.clock.at += 3 * 60_000 + 1;
		expect(await at('10.0.0.1')).toBeNull();
	});
});

/** Somebody at work in a sealed client: a browser that signs, and a client around it that signs as well. */
async function atWork(i: number, by: Client) {
	const code = await openDoor(house);
	const { number, family, sittingId } = house.people[i];
	const known = { siteId: 'quayside', version: '2.1', deviceId: by.id };
	const met = await knock(house.otium, { code, number, family, address: '10.0.0.1', client: known });
	if (!met.ok) throw new Error(met.refusal.code);
	const signer = await newSigner();
	const publicKey = await signer.publicKey();
	const asked = { note: met.person.note, commandId: nanoid(), deviceId: `d${i}`, deviceName: 'x', address: '10.0.0.1' };
	const arrived = await arrive(house.otium, { ...asked, publicKey });
	if (!arrived.ok) throw new Error(arrived.refusal.code);
	await act(house.otium, [{ id: nanoid(), sittingId, by: PROCTOR, body: { kind: 'let_in' } }]);
	const { token } = arrived.device;
	const headersOf = async (method: 'GET' | 'POST', path: string, body: unknown, version = '2.1', who = by) => {
		const text = method === 'GET' ? '' : JSON.stringify(body ?? {});
		const headers = await signer.headers(method, path, new TextEncoder().encode(text));
		const browser = /otium=:(.*):/.exec(headers.signature)![1];
		const signed = { method, path, digest: headers['content-digest'], browser, device: who.id, version };
		const parts = clientSignatureParts(
			signed,
			sign(null, Buffer.from(clientSignatureBase(signed)), who.key).toString('base64')
		);
		return {
			...headers,
			'signature-input': `${headers['signature-input']}, ${parts.input}`,
			signature: `${headers.signature}, ${parts.signature}`
		};
	};
	const send = async (handler: unknown, method: 'GET' | 'POST', path: string, body: unknown, headers: object) =>
		call(handler as never, {
			otium: house.otium,
			method,
			path,
			body,
			headers: headers as Record<string, string>,
			signIn: hashToken(token),
			device: await deviceByToken(house.otium.db, token, house.otium.now())
		});
	const ask = async (
		handler: unknown,
		method: 'GET' | 'POST',
		path: string,
		body?: unknown,
		how: { version?: string; who?: Client } = {}
	) => {
		const once = async () =>
			send(handler, method, path, body, await headersOf(method, path, body, how.version, how.who));
		const answer = await once();
		if (answer.body.code !== 'sign_anew') return answer;
		signer.mark = answer.body.mark as string;
		return once();
	};
	return { signer, headersOf, send, ask, sittingId };
}

describe('a sealed paper', () => {
	it('turns a plain browser and an old client away at the door, each with what would work', async () => {
		const code = await openDoor(house);
		const typed = { code, number: 'DO-1001', family: 'Family0', address: '10.0.0.1' };
		expect(await knock(house.otium, typed)).toMatchObject({
			ok: false,
			refusal: { code: 'client_unproven', instead: expect.stringMatching(/sit\/client/) }
		});
		expect(await knock(house.otium, { ...typed, client: await clientOf('2.0.9') })).toMatchObject({
			ok: false,
			refusal: { code: 'client_outdated' }
		});
		expect(await knock(house.otium, { ...typed, client: await clientOf('2.10') })).toMatchObject({ ok: true });
		const other = { siteId: 'lighthouse', version: '9', deviceId: 'x' };
		expect(await knock(house.otium, { ...typed, client: other })).toMatchObject({ ok: false });
		await expect(arriveAt(house, 0, code)).rejects.toThrow('client_unproven');
	});

	it('is sat with each request signed by browser and client, and not one is taken without', async () => {
		const one = await atWork(0, client);
		expect((await one.ask(begin, 'POST', '/sit/api/begin', { commandId: 'begin-one' })).status).toBe(200);
		expect((await one.ask(paper, 'GET', '/sit/api/paper')).status).toBe(200);
		const revision = {
			seq: 1,
			questionId: nameOnDevice(house, 'sit0', 'q1'),
			value: true,
			marked: false,
			struck: [],
			inViewMs: 1
		};
		for (const [handler, method, path, body] of [
			[picture, 'GET', '/sit/api/picture', undefined],
			[paper, 'GET', '/sit/api/paper', undefined],
			[answers, 'POST', '/sit/api/answers', { revisions: [revision] }],
			[handIn, 'POST', '/sit/api/hand-in', { commandId: 'hand-in-1' }]
		] as const) {
			// The browser alone, as when its cookie and its key were carried into a plain one.
			const text = method === 'GET' ? '' : JSON.stringify(body);
			const plain = await one.signer.headers(method, path, new TextEncoder().encode(text));
			const bare = await one.send(handler, method, path, body, plain);
			expect([path, bare.status, bare.body.code]).toEqual([path, 403, 'client_unproven']);
			expect(bare.text).not.toContain('even');
			expect((await one.ask(handler, method, path, body, { version: '2.0' })).body.code).toBe('client_outdated');
			expect((await one.ask(handler, method, path, body)).status).toBe(200);
		}
	});

	it('takes no signature that was made for another request, or on another sitting', async () => {
		const [one, two] = [await atWork(0, client), await atWork(1, await newClient())];
		await one.ask(begin, 'POST', '/sit/api/begin', { commandId: 'begin-one' });
		await two.ask(begin, 'POST', '/sit/api/begin', { commandId: 'begin-two' });
		const good = await one.headersOf('GET', '/sit/api/picture', undefined);
		const client1 = { input: good['signature-input'].split(', ')[1], signature: good.signature.split(', ')[1] };
		const own = await two.signer.headers('GET', '/sit/api/paper', new Uint8Array());
		const mixed = {
			...own,
			'signature-input': `${own['signature-input']}, ${client1.input}`,
			signature: `${own.signature}, ${client1.signature}`
		};
		expect((await two.send(paper, 'GET', '/sit/api/paper', undefined, mixed)).body.code).toBe('client_unproven');
		// Of a device that has not enrolled, under the name of one that has.
		const { privateKey } = generateKeyPairSync('ed25519');
		const forged = await two.ask(paper, 'GET', '/sit/api/paper', undefined, { who: { ...client, key: privateKey } });
		expect(forged.body.code).toBe('client_unproven');
	});

	it('ends at once on a device that is withdrawn', async () => {
		const one = await atWork(0, client);
		await one.ask(begin, 'POST', '/sit/api/begin', { commandId: 'begin-one' });
		expect((await one.ask(paper, 'GET', '/sit/api/paper')).status).toBe(200);
		expect(await withdrawClientDevice(house.otium, COORDINATOR, client.id)).toBe(true);
		expect((await one.ask(paper, 'GET', '/sit/api/paper')).body.code).toBe('client_unproven');
		expect(await withdrawClientDevice(house.otium, COORDINATOR, client.id)).toBe(false);
	});

	it('is signed as RFC 9421 has it, as another implementation reads it', async () => {
		const one = await atWork(0, client);
		const headers = await one.headersOf('GET', '/sit/api/picture', undefined);
		const key = createPublicKey({ key: Buffer.from(client.publicKey, 'base64url'), format: 'der', type: 'spki' });
		const read = await httpbis.verifyMessage(
			{
				keyLookup: async ({ keyid }) => ({
					id: keyid,
					verify: async (data: Buffer, signature: Buffer) =>
						// The browser's own is checked elsewhere.
						keyid === client.id ? verify(null, data, key, signature) : true
				}),
				all: true
			},
			{ method: 'GET', url: 'http://localhost/sit/api/picture', headers }
		);
		expect(read).toBe(true);
	});

	it('where the rules ask for none, nothing is asked', () => {
		const open = { rules: DEFAULT_RULES, site: { id: 'quayside', name: '', zone: '' } };
		expect(clientFor(open, null)).toBe('not_asked');
	});
});

describe('versions', () => {
	it.each([
		['2.1', '2.1', true],
		['2.10', '2.9', true],
		['2', '2.0.0', true],
		['1.9.9', '2', false],
		['x', '1', false],
		['', '1', false]
	])('%s at least %s: %s', (version, wanted, is) => expect(isAtLeast(version, wanted)).toBe(is));
});

describe('a rehearsal', () => {
	const works = (['screen', 'sound', 'storage', 'line', 'clock'] as const).map((check) => ({
		key: check,
		ok: true,
		says: 'works'
	}));
	const asked = { by: '', address: '10.0.0.1', deviceName: 'Laptop', client: null, results: works };
	const slip = async () => (await slipsFor(house.otium.db, ['sit0'])).get('sit0')!;

	it('writes a readiness line for the candidate and the device, and uses up nothing', async () => {
		const before = await house.otium.db('sitting');
		const by = await slip();
		expect(await rehearse(house.otium, { ...asked, by })).toMatchObject({
			ok: true,
			ready: false,
			needs: { client: '2.1' },
			clientSays: { ok: false }
		});
		expect(await rehearse(house.otium, { ...asked, by, client: await clientOf('2.1') })).toMatchObject({
			ok: true,
			ready: true,
			name: 'DO-1001'
		});
		expect(await house.otium.db('device_check')).toHaveLength(2);
		expect(await house.otium.db('sitting')).toEqual(before);
	});

	it('does not take the device’s word for its client', async () => {
		const claimed = [...works, { key: 'client' as const, ok: true, says: 'version 9' }];
		expect(await rehearse(house.otium, { ...asked, by: await slip(), results: claimed })).toMatchObject({
			ok: true,
			ready: false
		});
	});

	it('is written down for whoever has the link or the slip, and for nobody else', async () => {
		const { db, now } = house.otium;
		const link = await rehearsalNote(db, 'can1', now() + 60_000);
		expect(await rehearse(house.otium, { ...asked, by: link })).toMatchObject({ ok: true, name: 'DO-1002' });
		expect(await rehearse(house.otium, asked)).toMatchObject({ ok: true, ready: true, name: null });
		house.clock.at += 61_000;
		for (const by of [link, 'DO-1001', 'Family0', 'AAAA-AAA-AAA', `${link.slice(0, -4)}AAAA`])
			expect([by, (await rehearse(house.otium, { ...asked, by })).ok]).toEqual([by, false]);
		expect(await db('device_check').pluck('candidate_id')).toEqual(['can1']);
	});
});
