import { createHmac } from 'node:crypto';
import { readdirSync, readFileSync } from 'node:fs';
import { join } from 'node:path';
import Database from 'better-sqlite3';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { awaited, passwordFault, SIGN_IN_RULES } from '$core/access';
import { MINUTE } from '$core/time';
import { addStaff, hashToken, listStaff, saveStaff } from '../identity';
import { searchLogbook } from '../logbook';
import { sendWaiting, wordsOf } from '../mail';
import { buildHouse, COORDINATOR, type House } from '../testing/house';
import {
	askForLink,
	changePassword,
	endSessions,
	faultOfPassword,
	goOn,
	invite,
	newRecoveryCodes,
	noteWhoIsThere,
	offerApp,
	openSession,
	ownerOfLink,
	passByCode,
	saveSignInRules,
	secondStepsOf,
	sessionsOf,
	signIn,
	staffByToken,
	takeApp,
	takeSecondStepsAway,
	useLink
} from '.';

let house: House;
let id: string;
const RIGHT = 'high water at noon';
const FROM = { address: '10.0.0.1', agent: 'Mozilla/5.0 (X11; Linux x86_64) Chrome/150.0' };
beforeEach(async () => {
	house = await buildHouse();
	id = await addStaff(house.otium.db, {
		signIn: 'lorne',
		name: 'Petra Lorne',
		password: RIGHT,
		email: 'Lorne@Saltmarsh.example',
		roles: [{ role: 'coordinator', siteId: null }]
	});
});
afterEach(() => house.close());

const enter = async (password = RIGHT, name = 'lorne') => {
	const result = await signIn(house.otium, name, password, FROM);
	if (!result.ok) throw new Error(`not signed in: ${result.waitSeconds}`);
	return result;
};
const isIn = async ({ token }: { token: string }) => (await staffByToken(house.otium, token))?.awaits === null;

/** A code by RFC 6238 with SHA-1, six digits and half a minute, worked out here from RFC 4226, 5.3. */
function codeOf(secret: string, at: number): string {
	const bits = [...secret].map((letter) =>
		'ABCDEFGHIJKLMNOPQRSTUVWXYZ234567'.indexOf(letter).toString(2).padStart(5, '0')
	);
	const key = Buffer.from(
		bits
			.join('')
			.match(/.{8}/g)!
			.map((byte) => parseInt(byte, 2))
	);
	const count = Buffer.alloc(8);
	count.writeBigUInt64BE(BigInt(Math.floor(at / 30_000)));
	const mac = createHmac('sha1', key).update(count).digest();
	const offset = mac[19] & 15;
	return String((mac.readUInt32BE(offset) & 0x7fffffff) % 1_000_000).padStart(6, '0');
}

describe('a code from an app', () => {
	it('is worked out here as RFC 6238, appendix B, has it', () => {
		// The seed of the appendix in base32; its codes of eight digits, cut to the last six.
		const seed = 'GEZDGNBVGY3TQOJQGEZDGNBVGY3TQOJQ';
		expect([59, 1_111_111_109, 1_234_567_890, 2_000_000_000].map((s) => codeOf(seed, s * 1_000))).toEqual([
			'287082',
			'081804',
			'005924',
			'279037'
		]);
	});

	it('is asked for once it is set up, holds once, and for a moment', async () => {
		const { secret } = await offerApp(house.otium, id);
		const now = () => codeOf(secret, house.clock.at);
		expect(await takeApp(house.otium, id, '000000')).toBe(false);
		expect((await enter()).awaits).toBeNull();
		expect(await takeApp(house.otium, id, now())).toBe(true);
		const entered = await enter();
		expect([entered.awaits, await isIn(entered)]).toEqual(['second', false]);
		// The code by which it was set up is used up.
		expect(await passByCode(house.otium, id, now(), '10.0.0.1')).toEqual({ ok: false, waitSeconds: 0 });
		house.clock.at += MINUTE;
		const next = now();
		const both = await Promise.all([1, 2].map(() => passByCode(house.otium, id, next, '10.0.0.1')));
		expect(both.filter((one) => one.ok)).toHaveLength(1);
		expect(await goOn(house.otium, hashToken(entered.token))).toBeNull();
		expect(await isIn(entered)).toBe(true);
		house.clock.at += 5 * MINUTE;
		expect(await passByCode(house.otium, id, next, '10.0.0.1')).toMatchObject({ ok: false });
		// A clock that is half a minute off is taken; one that is two minutes off is not.
		expect(await passByCode(house.otium, id, codeOf(secret, house.clock.at - 120_000), '10.0.0.1')).toMatchObject({
			ok: false
		});
		expect(await passByCode(house.otium, id, codeOf(secret, house.clock.at + 30_000), '10.0.0.1')).toMatchObject({
			ok: true
		});
	});

	it('is guessed five times and no more', async () => {
		const { secret } = await offerApp(house.otium, id);
		await takeApp(house.otium, id, codeOf(secret, house.clock.at));
		const tries = await Promise.all(
			Array.from({ length: 300 }, (_, i) => passByCode(house.otium, id, String(i).padStart(6, '0'), `10.0.${i}.1`))
		);
		expect(tries.filter((one) => !one.ok && one.waitSeconds === 0).length).toBeLessThanOrEqual(100);
		house.clock.at += MINUTE;
		expect(await passByCode(house.otium, id, codeOf(secret, house.clock.at), '10.9.9.9')).toMatchObject({ ok: false });
	});

	it('lies sealed in the database, and so does nothing else by which somebody gets in', async () => {
		const { secret } = await offerApp(house.otium, id);
		await takeApp(house.otium, id, codeOf(secret, house.clock.at));
		const codes = await newRecoveryCodes(house.otium, id);
		const all = JSON.stringify([
			await house.otium.db('staff'),
			await house.otium.db('recovery_code'),
			await house.otium.db('logbook')
		]);
		for (const word of [secret, ...codes, ...codes.map((code) => code.replaceAll('-', ''))])
			expect(all).not.toContain(word);
	});
});

describe('recovery codes', () => {
	it('let in once each, and end with the next ones and with the second step', async () => {
		const { secret } = await offerApp(house.otium, id);
		await takeApp(house.otium, id, codeOf(secret, house.clock.at));
		const codes = await newRecoveryCodes(house.otium, id);
		expect(new Set(codes).size).toBe(10);
		expect(await passByCode(house.otium, id, codes[0].toLowerCase().replaceAll('-', ' '), 'a')).toEqual({ ok: true });
		expect(await passByCode(house.otium, id, codes[0], 'a')).toMatchObject({ ok: false });
		expect(await secondStepsOf(house.otium.db, id)).toEqual({ app: true, passkeys: 0, recoveryCodes: 9 });
		await newRecoveryCodes(house.otium, id);
		expect(await passByCode(house.otium, id, codes[1], 'a')).toMatchObject({ ok: false });
		const entered = await enter();
		await takeSecondStepsAway(house.otium, COORDINATOR, id);
		expect(await staffByToken(house.otium, entered.token)).toBeNull();
		expect((await enter()).awaits).toBeNull();
	});
});

describe('what a sign-in waits for', () => {
	const has = { secondStep: false, mustChange: false, roles: [{ role: 'proctor' as const, siteId: 'a' }] };
	const strict = { ...SIGN_IN_RULES, secondStepFor: ['proctor' as const] };
	it.each([
		['nothing', has, false, SIGN_IN_RULES, null],
		['a second step that is set up', { ...has, secondStep: true }, false, SIGN_IN_RULES, 'second'],
		['no second step after a passkey', { ...has, secondStep: true }, true, strict, null],
		['a password of one’s own', { ...has, mustChange: true }, false, strict, 'password'],
		['setting up what a role needs', has, false, strict, 'enrol'],
		['nothing, where the role does not need it', { ...has, roles: [] }, false, strict, null],
		['nothing, after a service that has asked for two', has, true, strict, null]
	])('is %s', (_, known, hasPassed, rules, step) => expect(awaited(known, hasPassed, rules)).toBe(step));

	it('a password that somebody else gave is changed at once, and then a second step is set up where it is needed', async () => {
		await saveSignInRules(house.otium, COORDINATOR, { secondStepFor: ['coordinator'], idleMinutes: 60 });
		const roles = [{ role: 'coordinator' as const, siteId: null }];
		const change = { id, name: 'Petra Lorne', signIn: 'lorne', email: null, password: 'a first one for you', roles };
		expect((await saveStaff(house.otium, COORDINATOR, change)).ok).toBe(true);
		const entered = await enter('a first one for you');
		expect([entered.awaits, await isIn(entered)]).toEqual(['password', false]);
		expect((await changePassword(house.otium, id, 'an anchor in the reeds', hashToken(entered.token))).ok).toBe(true);
		expect(await goOn(house.otium, hashToken(entered.token))).toBe('enrol');
		expect(await isIn(entered)).toBe(false);
		const { secret } = await offerApp(house.otium, id);
		await takeApp(house.otium, id, codeOf(secret, house.clock.at));
		expect(await goOn(house.otium, hashToken(entered.token))).toBeNull();
		expect(await isIn(entered)).toBe(true);
	});
});

describe('a password', () => {
	it.each([
		['eleven long', /at least 12/],
		['aaaaaaaaaaaaaaaa', /others try first/],
		['password12345', /others try first/],
		['Password!!!!!', /others try first/],
		['passwordpassword', /others try first/],
		['123456789012', /others try first/],
		['lorne-lorne1', /your name/],
		['Saltmarsh.12', /your name/],
		['x'.repeat(50) + 'a b c d '.repeat(40), /at most 200/]
	])('%s is not taken', async (password, why) =>
		expect(await faultOfPassword(house.otium.db, id, password)).toMatch(why)
	);
	it.each(['an anchor in the reeds', 'мачта и парус зимой', 'correct Lorne battery staple', 'ѾѾ12345678ab'])(
		'%s is',
		(password) => expect(passwordFault(password, ['lorne', 'Petra Lorne'], () => false)).toBeNull()
	);

	it('that is changed ends every other sign-in and every link', async () => {
		const [here, there] = [await enter(), await enter()];
		await askForLink(house.otium, 'lorne', 'http://localhost', 'a');
		await changePassword(house.otium, id, 'an anchor in the reeds', hashToken(here.token));
		expect([await isIn(here), await isIn(there)]).toEqual([true, false]);
		expect(await house.otium.db('password_link')).toEqual([]);
		await expect(enter()).rejects.toThrow('not signed in');
	});
});

describe('by mail', () => {
	const linkIn = async () => {
		await expect.poll(() => house.otium.db('mail').first('body')).toBeTruthy();
		const [mail] = await house.otium.db('mail').orderBy('made_at', 'desc').limit(1);
		return new URL(/http\S+/.exec(wordsOf(house.otium.db, mail))![0]).searchParams.get('link')!;
	};

	it('one signs in, too, and asks for a link that holds once and for an hour', async () => {
		expect((await enter(RIGHT, ' lorne@saltmarsh.EXAMPLE ')).ok).toBe(true);
		await askForLink(house.otium, 'lorne@saltmarsh.example', 'https://exams.example', 'a');
		const link = await linkIn();
		expect(await ownerOfLink(house.otium.db, link, house.clock.at)).toMatchObject({ name: 'Petra Lorne' });
		expect(await ownerOfLink(house.otium.db, link, house.clock.at + 61 * MINUTE)).toBeNull();
		expect(await useLink(house.otium, link, 'password1234')).toMatchObject({ ok: false });
		const both = await Promise.all([1, 2].map(() => useLink(house.otium, link, 'an anchor in the reeds')));
		expect(both.filter((one) => one.ok)).toHaveLength(1);
		expect((await enter('an anchor in the reeds')).awaits).toBeNull();
		expect(await useLink(house.otium, link, 'a second one entirely')).toMatchObject({ ok: false });
	});

	it('nothing goes to whoever is not there, nor tells that they are not', async () => {
		expect(await askForLink(house.otium, 'nobody', 'https://exams.example', 'a')).toBe(0);
		expect(await house.otium.db('mail')).toEqual([]);
		// Nor is somebody's mailbox filled by it.
		const waits = [];
		for (let i = 0; i < 6; i++) waits.push(await askForLink(house.otium, 'lorne', 'https://exams.example', 'a'));
		expect(waits.filter((wait) => wait > 0).length).toBeGreaterThan(1);
	});

	it('the link is kept nowhere once it is sent, but in the mail', async () => {
		expect(await invite(house.otium, COORDINATOR, id, 'https://exams.example', true)).toEqual({ link: null });
		const link = await linkIn();
		await sendWaiting(house.otium);
		expect(JSON.stringify(await house.otium.db('mail'))).not.toContain(link);
		expect(JSON.stringify(await house.otium.db('password_link'))).not.toContain(link);
		const sent = readdirSync(join(house.dir, 'outbox')).map((name) =>
			readFileSync(join(house.dir, 'outbox', name), 'utf8')
		);
		expect(
			sent
				.join('')
				.replace(/=\r?\n/g, '')
				.replaceAll('=3D', '=')
		).toContain(link);
	});
});

describe('a sign-in', () => {
	it('ends when nothing is done in it, and not while a live room is open', async () => {
		const [idle, watching] = [await enter(), await enter()];
		house.clock.at += 50 * MINUTE;
		const lines = { signIns: () => [hashToken(watching.token)] };
		await noteWhoIsThere({ ...house.otium, now: () => house.clock.at, lines });
		house.clock.at += 20 * MINUTE;
		expect([await isIn(idle), await isIn(watching)]).toEqual([false, true]);
		// Doing something keeps it.
		house.clock.at += 50 * MINUTE;
		expect(await isIn(watching)).toBe(true);
		house.clock.at += 50 * MINUTE;
		expect(await isIn(watching)).toBe(true);
		house.clock.at += 14 * 60 * MINUTE;
		expect(await isIn(watching)).toBe(false);
	});

	it('asks once an hour who is there before what matters most', async () => {
		const entered = await enter();
		const isConfirmed = async () => (await staffByToken(house.otium, entered.token))!.isConfirmed;
		expect(await isConfirmed()).toBe(true);
		house.clock.at += 45 * MINUTE;
		await isConfirmed();
		house.clock.at += 20 * MINUTE;
		expect(await isConfirmed()).toBe(false);
	});

	it('is listed with where it is, and ended one by one or all at once', async () => {
		const here = await enter();
		const there = await openSession(house.otium, id, { address: '10.0.0.9', agent: 'Windows Edg/1' }, true);
		const list = await sessionsOf(house.otium.db, id, hashToken(here.token));
		expect(list.map(({ browser, isHere }) => [browser, isHere])).toEqual(
			expect.arrayContaining([
				['Linux, Chrome', true],
				['Windows, Edge', false]
			])
		);
		const ended = list.find((one) => !one.isHere)!.id;
		expect(await endSessions(house.otium, (query) => query.where({ staff_id: 'ode', id: ended }))).toBe(0);
		expect(await endSessions(house.otium, (query) => query.where({ staff_id: id, id: ended }))).toBe(1);
		expect([await isIn(here), await isIn(there)]).toEqual([true, false]);
	});

	it('is told in the logbook once it holds', async () => {
		await enter();
		const lines = await searchLogbook(house.otium.db, { text: 'signed_in' });
		expect(lines).toHaveLength(1);
		expect((await listStaff(house.otium.db)).map((one) => one.name)).toContain('Petra Lorne');
	});
});

it('staff go on reading while the disk takes nothing', async () => {
	const entered = await enter();
	house.clock.at += 5 * MINUTE;
	const other = new Database(join(house.dir, 'otium.sqlite'));
	await house.otium.db.raw('PRAGMA busy_timeout = 10');
	other.exec('BEGIN IMMEDIATE');
	try {
		expect(await isIn(entered)).toBe(true);
		house.clock.at += 61 * MINUTE;
		expect(await staffByToken(house.otium, entered.token)).toBeNull();
	} finally {
		other.exec('ROLLBACK');
		other.close();
	}
});
