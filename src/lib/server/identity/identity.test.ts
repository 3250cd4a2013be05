import { nanoid } from 'nanoid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { MINUTE } from '$core/time';
import { openRefusals } from '../door';
import { renewDoorCode } from '../session';
import { act, loadSitting } from '../sitting';
import {
	arriveAt,
	bringToWork,
	buildHouse,
	COORDINATOR,
	giveHere,
	NINE,
	openDoor,
	planMakeUp,
	PROCTOR,
	type House
} from '../testing/house';
import { MOST_IN_A_ROW } from './limits';
import { signIn, signOut, staffByToken } from '../sign-in';
import { addStaff, arrive, deviceByToken, knock, notMe } from '.';

let house: House;
beforeEach(async () => {
	house = await buildHouse();
});
afterEach(() => house.close());
const codeOf = async (typed: { code: string; number: string; family: string }, address = 'a') => {
	const answer = await knock(house.otium, { ...typed, address });
	return answer.ok ? answer.person.name : answer.refusal.code;
};

describe('the door', () => {
	it('forgives spaces, case, dashes and accents, and never says which part was wrong', async () => {
		const code = await openDoor(house);
		const careless = `${code.slice(0, 3).toLowerCase()} ${code.slice(3)}`;
		expect(await codeOf({ code: careless, number: 'do 1001', family: ' fámily0 ' })).toBe('Given0 Family0');
		expect(await codeOf({ code, number: 'DO-1001', family: 'Family1' })).toBe('identity_unknown');
		expect(await codeOf({ code, number: 'DO-9999', family: 'Family0' })).toBe('identity_unknown');
		expect(await codeOf({ code: '0000000', number: 'DO-1001', family: 'Family0' })).toBe('code_unknown');
	});

	it('of the room of one’s own window lets one in to what one was going to sit, and says that room', async () => {
		const { otium, clock } = house;
		await openDoor(house);
		await otium
			.db('room')
			.insert({ ...(await otium.db('room').where({ id: 'chart' }).first()), id: 'quiet', name: 'Quiet Room' });
		await act(otium, [{ id: 'absent', sittingId: 'sit2', by: PROCTOR, body: { kind: 'mark_absent' } }]);
		const other = await planMakeUp(house, { roomId: 'quiet', only: ['can2'], time: '10:00', until: '12:00' });
		const window = { opens: NINE + 60 * MINUTE, closes: NINE + 150 * MINUTE };
		const room = { id: 'quiet', name: 'Quiet Room' };
		await giveHere(house, { kind: 'own_window', ...window, room }, { candidateId: 'can0' });
		clock.at = NINE + 55 * MINUTE;
		const code = await openDoor({ ...house, sessionId: other });
		const here = { code, number: 'DO-1001', family: 'Family0', address: 'a' };
		const met = await knock(otium, here);
		expect(met).toMatchObject({ ok: true, person: { room: 'Quiet Room', seat: null, opens: window.opens } });
		if (!met.ok) return;
		const asked = {
			note: met.person.note,
			commandId: 'there',
			deviceId: 'laptop',
			deviceName: 'Laptop',
			address: 'a',
			publicKey: 'k'
		};
		expect(await arrive(otium, asked)).toMatchObject({ ok: true });
		expect((await loadSitting(otium.db, 'sit0', clock.at))!.sitting).toMatchObject({
			sessionId: 's1',
			state: 'at_door'
		});
		// Nobody else of that session is let in there, and nobody by another's name.
		expect(await codeOf({ code, number: 'DO-1002', family: 'Family1' })).toBe('wrong_session');
		expect(await codeOf({ code, number: 'DO-1001', family: 'Family1' })).toBe('identity_unknown');
	});

	it('knows the new code and not the old one after it was renewed; nobody inside notices', async () => {
		const old = await openDoor(house);
		await bringToWork(house, 0, old);
		await renewDoorCode(house.otium, 's1', COORDINATOR);
		expect(await codeOf({ code: old, number: 'DO-1002', family: 'Family1' })).toBe('code_unknown');
		expect((await loadSitting(house.otium.db, 'sit0', NINE))!.sitting.state).toBe('working');
	});

	it('lets the bound device back in and calls another one by name', async () => {
		const code = await openDoor(house);
		await bringToWork(house, 0, code);
		const back = await arriveAt(house, 0, code);
		expect(back).toMatchObject({ ok: true, device: { epoch: 1 } });
		const other = await arriveAt(house, 0, code, 'phone');
		expect(other).toMatchObject({ ok: false, refusal: { code: 'second_device' } });
		const { sitting } = (await loadSitting(house.otium.db, 'sit0', NINE))!;
		expect(sitting).toMatchObject({ state: 'working', otherDevice: { name: 'Laptop' } });
	});

	it('turns early and late arrivals away with their own reasons', async () => {
		const code = await openDoor(house);
		house.clock.at = NINE - 20 * MINUTE;
		expect(await arriveAt(house, 0, code)).toMatchObject({ refusal: { code: 'door_closed' } });
		house.clock.at = NINE + 16 * MINUTE;
		expect(await arriveAt(house, 0, code)).toMatchObject({ refusal: { code: 'past_last_entry' } });
	});

	it('takes a note that only this server can have written, for a while', async () => {
		const code = await openDoor(house);
		const met = await knock(house.otium, { code, number: 'DO-1001', family: 'Family0', address: 'a' });
		if (!met.ok) throw new Error('not met');
		const asked = { commandId: nanoid(), deviceId: 'd', deviceName: 'x', address: '127.0.0.1', publicKey: null };
		const [body] = met.person.note.split('.');
		expect(await arrive(house.otium, { ...asked, note: `${body}.forged` })).toMatchObject({ ok: false });
		expect(await arrive(house.otium, { ...asked, note: 'nonsense' })).toMatchObject({ ok: false });
		house.clock.at += 11 * MINUTE;
		expect(await arrive(house.otium, { ...asked, note: met.person.note })).toMatchObject({
			refusal: { message: 'That took too long.' }
		});
	});

	it('tells the proctor of whoever says that they are not the one who was found', async () => {
		const code = await openDoor(house);
		const met = await knock(house.otium, { code, number: 'DO-1001', family: 'Family0', address: 'a' });
		if (!met.ok) throw new Error('not met');
		await notMe(house.otium, met.person.note, null, 'Laptop');
		await notMe(house.otium, 'forged.note', null, 'Laptop');
		expect(await openRefusals(house.otium.db, 's1', house.otium.now())).toMatchObject([
			{ code: 'not_me', device: 'Laptop' }
		]);
		expect((await loadSitting(house.otium.db, 'sit0', NINE))!.sitting.state).toBe('expected');
	});

	it('makes wrong tries wait, longer each time, for that target alone, and never allows more than 100 in a row', async () => {
		const code = await openDoor(house);
		const wrong = { code, number: 'DO-1001', family: 'Wrong' };
		for (let i = 0; i < 6; i++) expect(await codeOf(wrong)).toBe('identity_unknown');
		expect(await codeOf(wrong)).toBe('too_many_tries');
		expect(await codeOf({ code, number: 'DO-1002', family: 'Family1' })).toBe('Given1 Family1');
		let tries = 6;
		while (tries < 300) {
			house.clock.at += 6 * MINUTE;
			// From ever new addresses, so that only the limit on the target holds them back.
			if ((await codeOf(wrong, `address${tries}`)) === 'too_many_tries') break;
			tries++;
		}
		// NIST SP 800-63B 5.2.2: no more than 100 consecutive failed attempts.
		expect(tries).toBe(MOST_IN_A_ROW);
	});
});

const FROM = { address: 'a', agent: 'Mozilla/5.0 (X11; Linux) Chrome/150' };

describe('staff', () => {
	it('sign in by password, hold a token that only its hash is kept of, and sign out', async () => {
		const { otium } = house;
		await addStaff(otium.db, {
			signIn: 'Lorne',
			name: 'Petra Lorne',
			password: 'high water',
			roles: [{ role: 'closing_officer', siteId: null }]
		});
		const stored = await otium.db('staff').where({ sign_in: 'lorne' }).first('password_hash');
		expect(stored.password_hash).toMatch(/^\$argon2id\$v=19\$m=19456,t=2,p=1\$/);
		expect(await signIn(otium, 'lorne', 'wrong', FROM)).toEqual({ ok: false, waitSeconds: 0 });
		const result = await signIn(otium, ' LORNE ', 'high water', FROM);
		if (!result.ok) throw new Error('not signed in');
		expect((await staffByToken(otium, result.token))?.staff).toMatchObject({
			name: 'Petra Lorne',
			roles: [{ role: 'closing_officer', siteId: null }]
		});
		expect(JSON.stringify(await otium.db('staff_session'))).not.toContain(result.token);
		await signOut(otium, result.token);
		expect(await staffByToken(otium, result.token)).toBeNull();
	});

	it('and candidates never pass for each other', async () => {
		const code = await openDoor(house);
		const arrived = await arriveAt(house, 0, code);
		if (!arrived.ok) throw new Error('not arrived');
		expect(await deviceByToken(house.otium.db, arrived.device.token, NINE)).toMatchObject({
			sittingId: 'sit0',
			epoch: 1
		});
		expect(await staffByToken(house.otium, arrived.device.token)).toBeNull();
	});
});
