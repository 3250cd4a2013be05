import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { DEFAULT_RULES } from '$core/session';
import { act } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import { buildHouse, COORDINATOR, nameOnDevice, openDoor, PROCTOR, type House } from '$lib/server/testing/house';
import { BODIES, paramsOf, queryOf } from '$lib/server/testing/staff-bodies';
import { somebody } from '$lib/server/testing/staff';
import { browserAt, type TestBrowser } from './sit/api/browser-for-tests';
import { POST as again } from './sit/api/again/+server';
import { POST as answers } from './sit/api/answers/+server';
import { POST as begin } from './sit/api/begin/+server';
import { POST as handIn } from './sit/api/hand-in/+server';

/**
 * What the house remembers of an act says what was decided, and gives nobody anything: each is presented again by somebody
 * else, and when it is over. The table of all of it stands in SECURITY.md.
 */
let house: House;
let honest: TestBrowser;
let code: string;
const command = (kind: 'let_in' | 'move_device') =>
	act(house.otium, [{ id: `${kind}-${Math.random()}`, sittingId: 'sit0', by: PROCTOR, body: { kind } }]);
beforeEach(async () => {
	house = await buildHouse({ rules: { attempts: { ...DEFAULT_RULES.attempts, most: 2 } } });
	code = await openDoor(house);
	honest = await browserAt(house, code, '10.0.0.1');
	expect((await honest.arrive(await honest.knock(), COMMANDS.arrive)).status).toBe(200);
	await command('let_in');
});
afterEach(() => house.close());

const COMMANDS = { arrive: 'arrives-once', begin: 'begins-once', handIn: 'hands-in-once', again: 'again-once' };
type Step = keyof typeof COMMANDS;
const asked = {
	begin: [begin, '/sit/api/begin', { commandId: COMMANDS.begin }],
	handIn: [handIn, '/sit/api/hand-in', { commandId: COMMANDS.handIn }],
	again: [again, '/sit/api/again', { commandId: COMMANDS.again, deviceName: 'Laptop' }]
} as const;
const send = async (by: TestBrowser, step: Step) => {
	if (step === 'arrive') return by.arrive(await by.knock(), COMMANDS.arrive);
	const [handler, path, body] = asked[step];
	return by.post(handler, path, body);
};
const STEPS: Step[] = ['arrive', 'begin', 'handIn', 'again'];
/** Everything that is kept, but what says that somebody tried. */
async function kept(): Promise<string> {
	const { db } = house.otium;
	const rows = await Promise.all(
		['device', 'answer', 'form', 'command_answer'].map((table) =>
			db(table)
				.select('*')
				.orderBy(1 as never)
		)
	);
	const sittings: { id: string; state: string; device_epoch: number }[] = await db('sitting')
		.orderBy('id')
		.select('id', 'state', 'device_epoch');
	return JSON.stringify([...rows, sittings]);
}

describe.each(STEPS)('what was answered to “%s”', (step) => {
	beforeEach(async () => {
		for (const before of STEPS.slice(1, STEPS.indexOf(step) + 1)) expect((await send(honest, before)).status).toBe(200);
	});

	it('is answered again to the device that asked, with no second effect', async () => {
		if (step === 'again') return expect((await house.otium.db('sitting')).length).toBe(4);
		const before = await house.otium.db('logbook').whereNotIn('kind', ['rows', 'device_noted']).pluck('kind');
		expect((await send(honest, step)).status).toBe(200);
		expect(await house.otium.db('logbook').whereNotIn('kind', ['rows', 'device_noted']).pluck('kind')).toEqual(before);
	});

	it.each([
		['another browser with a key of its own', true, false],
		['another browser that has copied the cookies', true, true],
		['one that has copied them and signs nothing', false, true]
	])('gives nothing to %s', async (_, signs, copies) => {
		const thief = await browserAt(house, code, '10.0.0.66', signs);
		if (copies) thief.jar = new Map(honest.jar);
		const before = await kept();
		const answer = await send(thief, step);
		expect([400, 401, 403, 404, 409, 410]).toContain(answer.status);
		expect(answer.text).not.toMatch(/sit0|"epoch"/);
		expect(await kept()).toBe(before);
	});

	it('gives nothing once the device was freed and another is bound', async () => {
		if (step === 'handIn' || step === 'again') return;
		await command('move_device');
		const next = await browserAt(house, code, '10.0.0.2');
		expect((await next.arrive(await next.knock(), 'another-arrival')).status).toBe(200);
		const before = await kept();
		const answer = await send(honest, step);
		expect([answer.status, answer.body.code]).toEqual([409, 'second_device']);
		expect(await kept()).toBe(before);
	});
});

it('an answer that was saved is acknowledged again, to its device and to no other', async () => {
	await send(honest, 'begin');
	const revision = {
		seq: 1,
		questionId: nameOnDevice(house, 'sit0', 'q1'),
		value: true,
		marked: false,
		struck: [],
		inViewMs: 1
	};
	const save = (by: TestBrowser) => by.post(answers, '/sit/api/answers', { revisions: [revision] });
	expect([(await save(honest)).status, (await save(honest)).status]).toEqual([200, 200]);
	expect(await house.otium.db('answer')).toHaveLength(1);
	await act(house.otium, [
		{ id: 'ends-it', sittingId: 'sit0', by: PROCTOR, body: { kind: 'hand_in', receipt: 'R', reason: 'x' } }
	]);
	expect((await save(honest)).body).toMatchObject({ kept: null, seqs: [1] });
	const thief = await browserAt(house, code, '10.0.0.66', false);
	thief.jar = new Map(honest.jar);
	expect((await save(thief)).status).toBe(401);
});

/** Routes of the staff that remember what they answered, by the id that comes with it. */
const ROUTES = import.meta.glob<Record<string, unknown>>('./**/+server.ts', { eager: true });
const REMEMBERING = Object.entries(BODIES).filter(([, body]) => {
	const sent: unknown = body();
	return typeof sent === 'object' && sent !== null && ('commandId' in sent || 'id' in sent);
});

describe.each(REMEMBERING)('what was answered to the staff: %s', (name, body) => {
	it('is nothing to somebody whose role was taken, at another site, or signed out', async () => {
		const [method, path] = name.split(' ');
		const handler = ROUTES[`./(staff)/${path}/+server.ts`][method];
		const ask = (staff: ReturnType<typeof somebody> | null) =>
			call(handler as never, {
				otium: house.otium,
				staff,
				method,
				params: paramsOf(path),
				query: queryOf(path),
				body: body(),
				signIn: 'a-sign-in'
			});
		await ask(somebody(COORDINATOR.id, 'coordinator', null));
		const before = await kept();
		expect((await ask(null)).status).toBe(401);
		// The same person and the same id, without what had allowed it.
		const bare = await ask({ id: COORDINATOR.id, name: 'Maren Ode', roles: [] });
		expect(bare.status).toBe(403);
		const elsewhere = await ask(somebody('someone', 'technician', 'lighthouse'));
		expect([403, 404]).toContain(elsewhere.status);
		expect(await kept()).toBe(before);
	});
});
