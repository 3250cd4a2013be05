import { afterEach, beforeEach, describe, expect, it, vi } from 'vitest';
import type { StaffMember } from '$core/access';
import { DEFAULT_RULES } from '$core/session';
import { openRefusals } from '$lib/server/door';
import { addStaff } from '$lib/server/identity';
import { signIn } from '$lib/server/sign-in';
import { searchLogbook } from '$lib/server/logbook';
import { act } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import { arriveAt, buildHouse, openDoor, PROCTOR, type House } from '$lib/server/testing/house';
import { somebody } from '$lib/server/testing/staff';
import { POST as door } from './(staff)/live/[id]/door/+server';
import { POST as begin } from './sit/api/begin/+server';
import { POST as handIn } from './sit/api/hand-in/+server';
import { POST as knock } from './sit/api/knock/+server';
import { POST as rehearse } from './sit/api/rehearse/+server';

let house: House;
let code: string;
beforeEach(async () => {
	house = await buildHouse({ rules: { startWord: 'halyard', finishWord: 'mooring' } });
	code = await openDoor(house);
});
afterEach(() => house.close());

type Asked = Omit<Parameters<typeof call>[1], 'otium'>;
const ask = (handler: unknown, asked: Asked) => call(handler as never, { otium: house.otium, ...asked });
const DUNMORE: StaffMember = somebody('dunmore', 'proctor', 'quayside');
const from = (address: string) => ({ address, agent: '' });
const lines = () => openRefusals(house.otium.db, 's1', house.otium.now());
const knocking = (number: string, family: string, more: object = {}, address = '10.0.0.1') =>
	ask(knock, { body: { code, number, family, ...more }, address });
const counted = (answers: { status: number }[]) =>
	answers.reduce<Record<number, number>>((all, { status }) => ({ ...all, [status]: (all[status] ?? 0) + 1 }), {});
let commands = 0;
const commandId = () => `command-${++commands}`;

describe('a start or finish word', () => {
	/** Lets the nth in, on their own device. */
	async function letIn(nth: number) {
		const arrived = await arriveAt(house, nth, code);
		if (!arrived.ok) throw new Error(arrived.refusal.code);
		const { sittingId, epoch } = arrived.device;
		await act(house.otium, [{ id: commandId(), sittingId, by: PROCTOR, body: { kind: 'let_in' } }]);
		return { sittingId, epoch };
	}
	const beginWith = (device: { sittingId: string; epoch: number }, startWord: string, address?: string) =>
		ask(begin, { body: { commandId: commandId(), startWord }, device, address });

	it.each([
		['one after another', false],
		['all at once', true]
	])('is guessed six times at the most before it waits, %s', async (_, atOnce) => {
		const device = await letIn(0);
		const words = Array.from({ length: 30 }, (_, i) => `guess${i}`);
		const answers = atOnce
			? await Promise.all(words.map((word) => beginWith(device, word)))
			: await words.reduce(
					async (all, word) => [...(await all), await beginWith(device, word)],
					Promise.resolve<Awaited<ReturnType<typeof beginWith>>[]>([])
				);
		expect(counted(answers)).toEqual({ 422: 6, 429: 24 });
		// The right one waits as well, and says how long.
		const right = await beginWith(device, 'halyard');
		expect([right.status, right.body.waitSeconds]).toEqual([429, 2]);
		// Nobody else waits, and the proctor sees who guesses and lets them try again.
		expect((await beginWith(await letIn(1), 'halyard')).status).toBe(200);
		const [line] = await lines();
		expect(line).toMatchObject({ code: 'word_guessed', candidate: { number: 'DO-1001' } });
		const forgive = { params: { id: 's1' }, body: { refusalId: line.id, act: 'forgive' }, staff: DUNMORE };
		expect((await ask(door, forgive)).status).toBe(200);
		expect((await beginWith(device, 'halyard')).status).toBe(200);
	});

	it('waits from another address too, once it was tried often enough, and the finish word by itself', async () => {
		const epoch = await bringToWorkWithWord();
		const device = { sittingId: 'sit0', epoch };
		const finish = (word: string) => ask(handIn, { body: { commandId: commandId(), finishWord: word }, device });
		for (let i = 0; i < 6; i++) expect((await finish(`guess${i}`)).status).toBe(422);
		expect((await finish('mooring')).status).toBe(429);
		house.clock.at += 3_000;
		expect((await finish('mooring')).status).toBe(200);
	});

	async function bringToWorkWithWord(): Promise<number> {
		const device = await letIn(0);
		expect((await beginWith(device, 'halyard')).status).toBe(200);
		return device.epoch;
	}
});

describe('who somebody is', () => {
	it('a birthday is not guessed behind an ever new number', async () => {
		const { rules } = await house.otium.db('session').where({ id: 's1' }).first('rules');
		const parsed = JSON.parse(rules);
		parsed.door = { ...DEFAULT_RULES.door, identity: 'names_and_birthday' };
		await house.otium
			.db('session')
			.where({ id: 's1' })
			.update({ rules: JSON.stringify(parsed) });
		await house.otium.db('candidate').where({ id: 'can0' }).update({ birth: '2007-05-31' });
		const asking = (birthday: string, number: string) => knocking(number, 'Family0', { given: 'Given0', birthday });
		for (let i = 1; i <= 6; i++) expect((await asking(`0${i}-01`, `N${i}`)).status).toBe(404);
		expect((await asking('31-05', 'N7')).status).toBe(429);
		house.clock.at += 3_000;
		expect((await asking('31-05', '')).status).toBe(200);
	});

	it('a right knock of one’s own forgives nothing but itself', async () => {
		for (let i = 0; i < 6; i++) await knocking('DO-1002', 'Guess');
		expect((await knocking('DO-1001', 'Family0')).status).toBe(200);
		expect((await knocking('DO-1002', 'Family1')).status).toBe(429);
	});

	it('six hundred wrong tries from a shared address shut out neither an honest candidate nor the coordinator there', async () => {
		await addStaff(house.otium.db, {
			signIn: 'lorne',
			name: 'Petra Lorne',
			password: 'high water at noon',
			roles: [{ role: 'coordinator', siteId: null }]
		});
		const wrong = Array.from({ length: 600 }, (_, i) => knocking(`DO-${9_000 + i}`, 'Guess'));
		expect(counted(await Promise.all(wrong))).toEqual({ 404: 600 });
		// Who guesses on is answered late; who is right is not, and overtakes one who asked before.
		const answered: number[] = [];
		const noted = async (answer: ReturnType<typeof knocking>) => answered.push((await answer).status);
		await Promise.all([noted(knocking('DO-9999', 'Guess')), noted(knocking('DO-1001', 'Family0'))]);
		expect(answered).toEqual([200, 404]);
		expect((await signIn(house.otium, 'lorne', 'high water at noon', from('10.0.0.1'))).ok).toBe(true);
	});

	it('an address of the sixth version is one guesser with all of its network', async () => {
		for (let i = 0; i < 6; i++) await knocking('DO-1001', 'Guess', {}, `2001:db8:0:1::${i}`);
		expect((await knocking('DO-1001', 'Family0', {}, '2001:db8:0:1:ffff::9')).status).toBe(429);
		expect((await knocking('DO-1001', 'Family0', {}, '2001:db8:0:2::1')).status).toBe(200);
	});

	it('a flood of strangers is one line, and their words stand on no screen', async () => {
		for (let i = 0; i < 40; i++)
			await knocking(`DO-${9_000 + i}`, 'Guess', { deviceName: `Fire alarm! Leave the room ${i}` });
		await knocking('DO-9999', 'Guess', { deviceName: 'Windows, Edge' });
		expect(await lines()).toMatchObject([{ tries: 41, device: 'Several devices' }]);
	});

	it('strangers who are refused at the same moment are one line that counts each of them, then and a second later', async () => {
		await Promise.all(Array.from({ length: 40 }, (_, i) => knocking(`DO-${9_000 + i}`, 'Guess')));
		expect(await lines()).toMatchObject([{ tries: 40 }]);
		await vi.waitFor(
			async () => expect(await house.otium.db('door_refusal').select('tries')).toEqual([{ tries: 40 }]),
			{
				timeout: 20_000
			}
		);
	});

	it('a rehearsal writes for nobody whose link or slip it was not shown, and tells nothing of anybody', async () => {
		const asked = { by: 'DO-1001', deviceName: 'Laptop', results: [] };
		const answer = await ask(rehearse, { body: asked });
		expect([answer.status, answer.body.code]).toEqual([404, 'identity_unknown']);
		const misses = await Promise.all(
			Array.from({ length: 200 }, (_, i) => ask(rehearse, { body: { ...asked, by: `AAAA-AAA-${i}` } }))
		);
		expect(counted(misses)).toEqual({ 404: 200 });
		expect(await house.otium.db('device_check')).toEqual([]);
	});
});

describe('a password of the staff', () => {
	const RIGHT = 'high water at noon';
	beforeEach(() =>
		addStaff(house.otium.db, {
			signIn: 'lorne',
			name: 'Petra Lorne',
			password: RIGHT,
			roles: [{ role: 'coordinator', siteId: null }]
		})
	);
	const trying = (password: string, address: string, known: string | null = null) =>
		signIn(house.otium, 'lorne', password, from(address), known);

	it('is guessed a hundred times in a row at the most, from however many addresses; a known browser goes on', async () => {
		const before = await trying(RIGHT, '10.0.0.1');
		if (!before.ok) throw new Error('not signed in');
		const tries = Array.from({ length: 110 }, (_, i) => trying('wrong', `10.9.${i}.1`));
		const compared = (await Promise.all(tries)).filter((one) => !one.ok && one.waitSeconds === 0);
		expect(compared.length).toBe(100);
		expect(await trying(RIGHT, '10.0.0.1')).toMatchObject({ ok: false });
		expect(await trying(RIGHT, '10.0.0.1', before.known)).toMatchObject({ ok: true });
		expect(await trying(RIGHT, '10.0.0.1', `${before.known}x`)).toMatchObject({ ok: false });
		// An hour, and not a day; and the logbook has told of it.
		expect((await searchLogbook(house.otium.db, { text: 'sign_in_failed' })).map(({ body }) => body.misses)).toEqual([
			100, 25, 5
		]);
	}, 60_000);

	it('guessed by a stranger keeps the stranger waiting, and nobody at another address', async () => {
		await Promise.all(Array.from({ length: 20 }, () => trying('wrong', '10.9.9.9')));
		expect(await trying(RIGHT, '10.9.9.9')).toMatchObject({ ok: false, waitSeconds: 2 });
		expect(await trying(RIGHT, '10.0.0.1')).toMatchObject({ ok: true });
	});

	it('what a browser keeps of one name opens nothing for another', async () => {
		const before = await trying(RIGHT, '10.0.0.1');
		if (!before.ok) throw new Error('not signed in');
		const other = (password: string) => signIn(house.otium, 'sorrel', password, from('10.0.0.2'), before.known);
		await addStaff(house.otium.db, {
			signIn: 'sorrel',
			name: 'Ina Sorrel',
			password: RIGHT,
			roles: [{ role: 'proctor', siteId: null }]
		});
		for (let i = 0; i < 6; i++) await other('wrong');
		expect(await other(RIGHT)).toMatchObject({ ok: false, waitSeconds: 2 });
	});
});

describe('strangers who guess at a candidate from many addresses', () => {
	const RIGHT = ['DO-1001', 'Family0'] as const;
	/** Five wrong ones from each of thirty addresses. */
	async function guess() {
		for (let i = 0; i < 150; i++) await knocking('DO-1001', `guess${i}`, {}, `10.9.${i % 30}.1`);
	}
	const at = (jar: Map<string, string>, [number, family]: readonly [string, string], address = '10.0.0.1') =>
		ask(knock, { body: { code, number, family }, address, jar });
	const settle = (refusalId: string) =>
		ask(door, { params: { id: 's1' }, body: { refusalId, act: 'forgive' }, staff: DUNMORE });
	const behind = async () => (await lines()).filter((line) => line.code === 'behind_strangers');

	it('shut nobody out whom a proctor can see: one press, and it holds', async () => {
		await guess();
		const [honest, wrong] = [new Map<string, string>(), new Map<string, string>()];
		const told = [await at(honest, RIGHT), await at(wrong, ['DO-1001', 'Family1'], '10.0.0.2')];
		// Whoever guessed right learns no more than whoever guessed wrong.
		expect(told[0].status).toBe(429);
		expect(told[1].body).toEqual(told[0].body);
		const [line, ...more] = await behind();
		expect([line.candidate?.number, more.length]).toEqual(['DO-1001', 0]);
		expect((await settle(line.id)).status).toBe(200);
		expect((await at(honest, RIGHT)).status).toBe(200);
		// The strangers go on; the browser that was vouched for does too, from wherever it comes.
		await guess();
		expect((await at(honest, RIGHT, '10.0.0.3')).status).toBe(200);
	});

	it('do not shut out a browser that was right before, nor does it guess on for ever', async () => {
		const known = new Map<string, string>();
		expect((await at(known, RIGHT)).status).toBe(200);
		await guess();
		expect((await at(known, RIGHT)).status).toBe(200);
		const wrong = [];
		for (let i = 0; i < 10; i++) wrong.push((await at(known, ['DO-1001', `guess${i}`])).status);
		expect(counted(wrong.map((status) => ({ status })))).toEqual({ 404: 6, 429: 4 });
	});

	it('gain nothing by it: a hundred guesses are answered, and after that none, however they come', async () => {
		const answers = [];
		for (let i = 0; i < 300; i++)
			answers.push(await at(new Map(), ['DO-1001', `guess${i}`], `10.${i % 100}.${i % 7}.1`));
		expect(counted(answers)).toEqual({ 404: 100, 429: 200 });
		expect(await behind()).toEqual([]);
	});

	it('fill no memory with codes and numbers that they make up', async () => {
		const targets = new Set<string>();
		const { consume } = house.otium.limits;
		house.otium.limits.consume = (guessed, what, ...rest) => {
			targets.add(what);
			return consume.call(house.otium.limits, guessed, what, ...rest);
		};
		for (let i = 0; i < 500; i++) await knocking(`made up ${'x'.repeat(40)} ${i}`, 'x', {}, `10.${i % 200}.1.1`);
		for (const target of targets) expect(target).toMatch(/^\d{1,5}$/);
	});
});
