import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { StaffMember } from '$core/access';
import { act } from '$lib/server/sitting';
import { addStaff, arrive, deviceByToken, hashToken, knock, saveStaff, signOutDevice } from '$lib/server/identity';
import { call } from '$lib/server/testing/call';
import { arriveAt, buildHouse, COORDINATOR, openDoor, PROCTOR, type House } from '$lib/server/testing/house';
import { GET as room } from './(staff)/live/[id]/stream/+server';
import { GET as picture } from './sit/api/picture/+server';
import { GET as own } from './sit/api/stream/+server';
import { load as page } from './sit/+page.server';
import { heldBy, Lines } from '$lib/server/lines';
import { signIn, signOut } from '$lib/server/sign-in';

let house: House;
let code: string;
beforeEach(async () => {
	house = await buildHouse();
	code = await openDoor(house);
});
afterEach(() => house.close());

/** Opens a line as a browser does; what has come down it, and whether it has ended. */
async function open(handler: unknown, locals: object, params: object = {}) {
	const url = new URL('http://otium.example/');
	const answer: Response = await (handler as (event: unknown) => Promise<Response>)({
		url,
		params,
		request: new Request(url),
		locals: { otium: house.otium, staff: null, device: null, client: null, address: '10.0.0.1', ...locals },
		cookies: {}
	});
	const line = { status: answer.status, text: '', ended: false };
	if (answer.status !== 200) return line;
	void (async () => {
		const decoder = new TextDecoder();
		for await (const piece of answer.body as unknown as AsyncIterable<Uint8Array>) line.text += decoder.decode(piece);
		line.ended = true;
	})();
	return line;
}
const soon = (what: () => unknown) => expect.poll(what, { timeout: 1_000, interval: 10 }).toBe(true);

describe('a line of the staff', () => {
	const RIGHT = 'high water at noon';
	let id: string;
	beforeEach(async () => {
		id = await addStaff(house.otium.db, {
			signIn: 'lorne',
			name: 'Petra Lorne',
			password: RIGHT,
			roles: [{ role: 'coordinator', siteId: null }]
		});
	});
	const staff = (): StaffMember => ({ id, name: 'Petra Lorne', roles: [{ role: 'coordinator', siteId: null }] });
	async function signedIn() {
		const result = await signIn(house.otium, 'lorne', RIGHT, { address: '10.0.0.1', agent: '' });
		if (!result.ok) throw new Error('not signed in');
		const token = hashToken(result.token);
		return { ...result, hash: token, line: await open(room, { staff: staff(), signIn: token }, { id: 's1' }) };
	}
	const change = { id: '', name: 'Petra Lorne', signIn: 'lorne', email: null, password: null, roles: [] as never[] };

	it('ends with the sign-out that it came with, and no other', async () => {
		const [here, there] = [await signedIn(), await signedIn()];
		await soon(() => here.line.text.includes('picture') && there.line.text.includes('picture'));
		await signOut(house.otium, here.token);
		await soon(() => here.line.ended);
		house.otium.hub.changed('s1', ['sit0']);
		await soon(() => there.line.text.includes('event: change'));
		expect([here.line.text.includes('event: change'), there.line.ended]).toEqual([false, false]);
	});

	it('ends when a role is taken, and when the password is changed by its owner, but for the one who changes it', async () => {
		const [here, there] = [await signedIn(), await signedIn()];
		const own = { ...change, id, password: 'another high water', roles: staff().roles };
		const by = { role: 'coordinator' as const, id };
		expect((await saveStaff(house.otium, by, own, here.hash)).ok).toBe(true);
		await soon(() => there.line.ended);
		expect(here.line.ended).toBe(false);
		const roles = [{ role: 'proctor' as const, siteId: 'quayside' }];
		expect((await saveStaff(house.otium, COORDINATOR, { ...change, id, roles })).ok).toBe(true);
		await soon(() => here.line.ended);
		expect(await house.otium.db('staff_session').where({ staff_id: id })).toEqual([]);
	});

	it('is one of a dozen at the most', async () => {
		const { hash } = await signedIn();
		const lines = await Promise.all(
			Array.from({ length: 20 }, () => open(room, { staff: staff(), signIn: hash }, { id: 's1' }))
		);
		expect(lines.filter(({ status }) => status === 200).length).toBe(11);
		expect(lines.filter(({ status }) => status === 429).length).toBe(9);
	});
});

describe('a line of a candidate', () => {
	async function come(deviceId: string) {
		const arrived = await arriveAt(house, 0, code, deviceId);
		if (!arrived.ok) throw new Error(arrived.refusal.code);
		const { token, sittingId, epoch } = arrived.device;
		return { token, locals: { device: { sittingId, epoch }, signIn: hashToken(token) } };
	}

	it('of a freed device tells it so, and nothing of what comes after another is there', async () => {
		const first = await come('first');
		const line = await open(own, first.locals);
		await soon(() => line.text.includes('at_door'));
		await act(house.otium, [{ id: 'free-device-1', sittingId: 'sit0', by: PROCTOR, body: { kind: 'move_device' } }]);
		await soon(() => line.text.includes('"epoch":null'));
		const second = await come('second');
		const held = { kind: 'hold' as const, reason: 'SECRET for the new device', stopsClock: true };
		await act(house.otium, [{ id: 'hold-them-now', sittingId: 'sit0', by: PROCTOR, body: held }]);
		await soon(() => line.ended);
		expect(line.text).not.toContain('on_hold');
		// Nor by asking anew, in any of the three ways.
		expect((await open(own, first.locals)).status).toBe(409);
		expect((await call(picture as never, { otium: house.otium, device: first.locals.device })).status).toBe(409);
		const seen = await page({
			url: new URL('http://otium.example/sit'),
			locals: { otium: house.otium, ...first.locals }
		} as never);
		expect(seen).toMatchObject({ device: null, picture: null });
		expect((await open(own, second.locals)).status).toBe(200);
	});

	it('ends when the candidate leaves, and the token with it', async () => {
		const { token, locals } = await come('first');
		const line = await open(own, locals);
		await soon(() => line.text.includes('at_door'));
		await signOutDevice(house.otium, token);
		await soon(() => line.ended);
		expect(await deviceByToken(house.otium.db, token, house.otium.now())).toBeNull();
		// Whoever was there comes back by the door, as the same device.
		const { number, family } = house.people[0];
		const met = await knock(house.otium, { code, number, family, address: '10.0.0.1' });
		if (!met.ok) throw new Error(met.refusal.code);
		const asked = {
			note: met.person.note,
			commandId: 'back-again',
			deviceId: 'first',
			deviceName: 'x',
			address: '10.0.0.1',
			publicKey: null
		};
		expect((await arrive(house.otium, asked)).ok).toBe(true);
	});
});

it('a line that is cancelled is held by nobody any more', async () => {
	const lines = new Lines();
	const holder = heldBy.staff('ode');
	const hold = () => lines.hold([holder], async (hold) => new ReadableStream({ cancel: hold.left }));
	for (let i = 0; i < 30; i++) await (await hold())!.cancel();
	await Promise.all(Array.from({ length: 12 }, hold));
	await expect(hold()).rejects.toMatchObject({ code: 'too_many_lines' });
	lines.end(holder);
	expect(await hold()).not.toBeNull();
});

it('a line whose holder is told to end while it is made has ended when it is there', async () => {
	const lines = new Lines();
	const holder = heldBy.staff('ode');
	const line = await lines.hold([holder], async (hold) => {
		lines.end(holder);
		return new ReadableStream({
			start(controller) {
				hold.end = () => controller.close();
			}
		});
	});
	expect(await line!.getReader().read()).toEqual({ value: undefined, done: true });
});
