import { nanoid } from 'nanoid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { isAtLeast, clientFor } from '$core/access';
import { DEFAULT_RULES } from '$core/session';
import { GET as paper } from './paper/+server';
import { begin, act } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import { arriveAt, buildHouse, COORDINATOR, openDoor, PROCTOR, type House } from '$lib/server/testing/house';
import {
	knock,
	listSiteKeys,
	makeChallenge,
	makeSiteKey,
	proofOf,
	proveClient,
	readClientNote,
	rehearse,
	withdrawSiteKey
} from '$lib/server/identity';

let house: House;
let key = '';
const sealed = { ...DEFAULT_RULES.lockdown, level: 'sealed' as const, clientVersion: '2.1' };
beforeEach(async () => {
	house = await buildHouse({ rules: { lockdown: sealed } });
	key = await makeSiteKey(house.otium, COORDINATOR, 'quayside');
});
afterEach(() => house.close());

async function prove(change: { version?: string; key?: string; nonce?: string; proof?: string } = {}) {
	const [keyId, secret] = (change.key ?? key).split('.');
	const nonce = change.nonce ?? (await makeChallenge(house.otium)).nonce;
	const version = change.version ?? '2.1';
	return proveClient(house.otium, {
		nonce,
		keyId,
		version,
		proof: change.proof ?? proofOf(secret, nonce, version),
		address: '10.0.0.1'
	});
}
async function clientOf(version: string) {
	const proved = await prove({ version });
	if (!proved.ok) throw new Error(proved.message);
	return readClientNote(house.otium, proved.note, '10.0.0.1');
}

describe('the proof', () => {
	it('is HMAC-SHA-256, as Web Crypto works it out', async () => {
		const bytes = (text: string) => new TextEncoder().encode(text);
		const imported = await crypto.subtle.importKey('raw', bytes('Jefe'), { name: 'HMAC', hash: 'SHA-256' }, false, [
			'sign'
		]);
		const mac = await crypto.subtle.sign('HMAC', imported, bytes('what do ya want.2.1'));
		expect(proofOf('Jefe', 'what do ya want', '2.1')).toBe(Buffer.from(mac).toString('hex'));
	});

	it('is taken once, in its minute, with a key that holds', async () => {
		const { nonce } = await makeChallenge(house.otium);
		expect(await prove({ nonce })).toMatchObject({ ok: true });
		expect(await prove({ nonce })).toMatchObject({ ok: false, message: expect.stringMatching(/used or has expired/) });
		const late = (await makeChallenge(house.otium)).nonce;
		house.clock.at += 61_000;
		expect(await prove({ nonce: late })).toMatchObject({ ok: false });
		expect(await prove({ key: `${key.split('.')[0]}.wrong` })).toMatchObject({
			ok: false,
			message: expect.stringMatching(/could not prove itself/)
		});
		expect(await prove({ proof: '' })).toMatchObject({ ok: false });
		await withdrawSiteKey(house.otium, COORDINATOR, key.split('.')[0]);
		expect(await prove()).toMatchObject({ ok: false });
	});

	it('a new key can be made while the old one still holds, and its secret is never listed', async () => {
		const next = await makeSiteKey(house.otium, COORDINATOR, 'quayside');
		expect(await prove({ key: next })).toMatchObject({ ok: true });
		expect(await prove()).toMatchObject({ ok: true });
		const listed = JSON.stringify(await listSiteKeys(house.otium.db));
		expect(listed).toContain(next.split('.')[0]);
		expect(listed).not.toContain(next.split('.')[1]);
		expect(JSON.stringify(await house.otium.db('logbook'))).not.toContain(next.split('.')[1]);
	});

	it('holds for minutes and for the address that it was given to', async () => {
		const proved = await prove();
		if (!proved.ok) throw new Error(proved.message);
		expect(await readClientNote(house.otium, proved.note, '10.0.0.1')).toEqual({ siteId: 'quayside', version: '2.1' });
		expect(await readClientNote(house.otium, proved.note, '10.0.0.2')).toBeNull();
		house.clock.at += 3 * 60_000 + 1;
		expect(await readClientNote(house.otium, proved.note, '10.0.0.1')).toBeNull();
	});
});

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
		expect(await knock(house.otium, { ...typed, client: { siteId: 'lighthouse', version: '9' } })).toMatchObject({
			ok: false
		});
	});

	it('serves no question to a cookie that was carried out of the client', async () => {
		const code = await openDoor(house);
		const client = (await clientOf('2.1'))!;
		const { number, family, sittingId } = house.people[0];
		const met = await knock(house.otium, { code, number, family, address: '127.0.0.1', client });
		expect(met.ok).toBe(true);
		// The helper knocks without a client, which a sealed door refuses.
		await expect(arriveAt(house, 0, code)).rejects.toThrow('client_unproven');
		const { arrive } = await import('$lib/server/identity');
		const arrived = await arrive(house.otium, {
			note: met.ok ? met.person.note : '',
			commandId: nanoid(),
			deviceId: 'd',
			deviceName: 'x',
			address: '127.0.0.1',
			publicKey: null
		});
		if (!arrived.ok) throw new Error(arrived.refusal.code);
		await act(house.otium, [{ id: nanoid(), sittingId, by: PROCTOR, body: { kind: 'let_in' } }]);
		expect(await begin(house.otium, sittingId, nanoid(), '')).toMatchObject({
			ok: false,
			refusal: { code: 'client_unproven' }
		});
		expect(await begin(house.otium, sittingId, nanoid(), '', client)).toMatchObject({ ok: true });
		const device = { sittingId, epoch: arrived.device.epoch };
		expect((await call(paper as never, { otium: house.otium, device, client })).status).toBe(200);
		const carried = await call(paper as never, { otium: house.otium, device });
		expect([carried.status, carried.body.code]).toEqual([403, 'client_unproven']);
		expect(carried.text).not.toContain('even');
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
	const asked = {
		number: 'do1001',
		family: 'family0',
		address: '10.0.0.1',
		deviceName: 'Laptop',
		client: null,
		results: works
	};

	it('writes a readiness line for the candidate and the device, and uses up nothing', async () => {
		const before = await house.otium.db('sitting');
		expect(await rehearse(house.otium, asked)).toMatchObject({
			ok: true,
			ready: false,
			needs: { client: '2.1' },
			clientSays: { ok: false }
		});
		expect(await rehearse(house.otium, { ...asked, client: await clientOf('2.1') })).toMatchObject({
			ok: true,
			ready: true,
			name: 'DO-1001'
		});
		expect(await house.otium.db('device_check')).toHaveLength(2);
		expect(await house.otium.db('sitting')).toEqual(before);
	});

	it('does not take the device’s word for its client', async () => {
		const claimed = [...works, { key: 'client' as const, ok: true, says: 'version 9' }];
		expect(await rehearse(house.otium, { ...asked, results: claimed })).toMatchObject({ ok: true, ready: false });
	});

	it('never tells which part of an identity was wrong', async () => {
		const wrong = await Promise.all([
			rehearse(house.otium, { ...asked, number: 'DO-9' }),
			rehearse(house.otium, { ...asked, family: 'x' })
		]);
		expect(wrong[0]).toEqual(wrong[1]);
	});
});
