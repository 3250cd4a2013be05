import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { DEFAULT_RULES } from '$core/session';
import { openRefusals } from '$lib/server/door';
import { act, loadSitting } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import { bringToWork, buildHouse, nameOnDevice, openDoor, PROCTOR, type House } from '$lib/server/testing/house';
import { somebody } from '$lib/server/testing/staff';
import { POST as door } from '../../(staff)/live/[id]/door/+server';
import { POST as again } from './again/+server';
import { POST as answers } from './answers/+server';
import { browserAt, type TestBrowser } from './browser-for-tests';
import { POST as begin } from './begin/+server';
import { POST as handIn } from './hand-in/+server';
import { POST as leftovers } from './leftovers/+server';
import { POST as notMe } from './not-me/+server';
import { GET as paper } from './paper/+server';
import { GET as photo } from './photo/+server';
import { GET as picture } from './picture/+server';
import { GET as receipt } from './receipt/+server';

let house: House;
let code: string;
const DUNMORE = somebody('dunmore', 'proctor', 'quayside');
afterEach(() => house.close());
async function build(rules: Parameters<typeof buildHouse>[0] = {}) {
	house = await buildHouse(rules);
	code = await openDoor(house);
}

const letIn = (sittingId = 'sit0') =>
	act(house.otium, [{ id: `let-in-${Math.random()}`, sittingId, by: PROCTOR, body: { kind: 'let_in' } }]);
const free = (sittingId = 'sit0') =>
	act(house.otium, [{ id: `free-${Math.random()}`, sittingId, by: PROCTOR, body: { kind: 'move_device' } }]);
const sitting = async (id = 'sit0') => (await loadSitting(house.otium.db, id, house.otium.now()))!.sitting;
const LEFTOVERS = '/sit/api/leftovers';

describe('an arrival that was answered once', () => {
	let honest: TestBrowser;
	let other: TestBrowser;
	beforeEach(async () => {
		await build();
		honest = await browserAt(house, code, '10.0.0.1');
		other = await browserAt(house, code, '10.0.0.77');
	});

	it('lets no second device in that repeats it with a key of its own', async () => {
		expect((await honest.arrive(await honest.knock(), 'agreed-upon')).status).toBe(200);
		const repeated = await other.arrive(await other.knock(), 'agreed-upon');
		expect([repeated.status, repeated.body.code]).toEqual([409, 'second_device']);
		expect(await other.device()).toBeNull();
		// The honest one may repeat it: its answer may have been lost on the way.
		expect((await honest.arrive(await honest.knock(), 'agreed-upon')).status).toBe(200);
		expect((await sitting()).device!.epoch).toBe(1);
	});

	it('brings no device back that was freed, once another sits in its place', async () => {
		const note = await other.knock();
		expect((await other.arrive(note, 'impostor-comes')).status).toBe(200);
		await free();
		expect((await honest.arrive(await honest.knock(), 'honest-comes')).status).toBe(200);
		other.jar.delete('otium-sitting');
		for (const commandId of ['impostor-comes', 'impostor-again']) {
			expect((await other.arrive(note, commandId)).status).not.toBe(200);
			expect((await other.arrive(await other.knock(), commandId)).body.code).toBe('second_device');
		}
		expect(await other.device()).toBeNull();
		await letIn();
		expect((await honest.post(begin, '/sit/api/begin', { commandId: 'honest-begins' })).status).toBe(200);
		expect((await honest.get(paper, '/sit/api/paper')).status).toBe(200);
	});

	it('is nothing to whoever saw the note on the line: it is the browser’s that knocked', async () => {
		const note = await honest.knock();
		expect((await other.arrive(note, 'by-their-note')).status).not.toBe(200);
		expect((await sitting()).state).toBe('expected');
		const shown = (by: TestBrowser) =>
			call(photo as never, { otium: house.otium, method: 'GET', query: `?note=${note}`, jar: by.jar });
		await house.otium.db('candidate').where({ id: 'can0' }).update({ photo_at: null });
		expect((await shown(other)).status).toBe(404);
		await other.post(notMe, '/sit/api/not-me', { note, deviceName: 'Laptop' }, false);
		expect(await openRefusals(house.otium.db, 's1', house.otium.now())).toEqual([]);
		expect((await honest.arrive(note, 'its-own-note')).status).toBe(200);
	});

	it('leaves no row of a stranger for each try, in the record or beside it', async () => {
		await honest.arrive(await honest.knock(), 'honest-comes');
		const rows = async () => [
			(await house.otium.db('logbook').whereNot({ kind: 'rows' })).length,
			(await house.otium.db('command_answer')).length
		];
		const [entries, remembered] = await rows();
		for (let i = 0; i < 40; i++) await other.arrive(await other.knock(), `stranger-${i}`);
		const [now, kept] = await rows();
		expect(now - entries).toBeGreaterThan(0);
		expect(now - entries).toBeLessThanOrEqual(5);
		expect(kept).toBe(remembered);
	});
});

describe('what a copied cookie brings', () => {
	const row = (seq: number, questionId: string, value: unknown = null) => ({
		sittingId: 'sit0',
		epoch: 1,
		seq,
		plain: { questionId, value, marked: false, struck: [], inViewMs: 1 }
	});
	const revision = (seq: number, value: unknown = true) => ({
		seq,
		questionId: nameOnDevice(house, 'sit0', 'q1'),
		value,
		marked: false,
		struck: [],
		inViewMs: 1
	});
	let honest: TestBrowser;
	let thief: TestBrowser;
	beforeEach(async () => {
		await build();
		honest = await browserAt(house, code, '10.0.0.1');
		await honest.arrive(await honest.knock(), 'honest-comes');
		await letIn();
		await honest.post(begin, '/sit/api/begin', { commandId: 'honest-begins' });
		expect((await honest.post(answers, '/sit/api/answers', { revisions: [revision(1)] })).status).toBe(200);
		thief = await browserAt(house, code, '10.0.0.66', false);
		thief.jar = new Map(honest.jar);
	});

	it('as leftovers is taken from nobody who has not signed it, and ends nothing', async () => {
		const own = nameOnDevice(house, 'sit0', 'q1');
		for (const rows of [[row(1_999, own)], [row(1_999_999_990, own)], [row(2_000_000_000, 'q1')], [row(900, 'q2')]]) {
			const sent = await thief.post(leftovers, LEFTOVERS, { rows });
			expect([sent.status, sent.body.taken]).toEqual([200, []]);
		}
		expect(await house.otium.db('answer')).toHaveLength(1);
		const next = await honest.post(answers, '/sit/api/answers', { revisions: [revision(2, false)] });
		expect(next.status).toBe(200);
		expect(JSON.parse((await house.otium.db('answer_standing').first('value')).value).value).toBe(false);
	});

	it('with a key of its own is told, and taken for nobody’s', async () => {
		const other = await browserAt(house, code, '10.0.0.66');
		other.jar = new Map(honest.jar);
		const sent = await other.post(leftovers, LEFTOVERS, { rows: [row(5, nameOnDevice(house, 'sit0', 'q1'))] });
		expect([sent.status, sent.body.code]).toEqual([401, 'not_signed']);
		expect((await sitting()).noted).toMatchObject([{ what: 'forged' }]);
	});

	it('from the device itself is bounded: by its numbers, by the names that it was given, by a quota', async () => {
		const far = await honest.post(answers, '/sit/api/answers', { revisions: [revision(60_000)] });
		expect([far.status, far.body.code]).toEqual([422, 'number_ahead']);
		const own = nameOnDevice(house, 'sit0', 'q2');
		const sent = await honest.post(leftovers, LEFTOVERS, {
			rows: [row(2_000_000_000, own), row(700, 'q2'), row(701, own, true)]
		});
		expect(sent.body).toMatchObject({
			taken: [{ seqs: [701] }],
			refused: [{ seqs: [2_000_000_000, 700] }]
		});
		const notes = (from: number) =>
			honest.post(leftovers, LEFTOVERS, {
				rows: Array.from({ length: 9 }, (_, i) => row(from + i, 'notes', 'x'.repeat(39_000)))
			});
		const statuses = new Set<number>();
		for (let i = 0; i < 40; i++) statuses.add((await notes(1_000 + i * 10)).status);
		expect([...statuses]).toEqual([200, 429]);
	});

	it('of strangers only so much is read from one address', async () => {
		const answer = async () =>
			(await call(leftovers as never, { otium: house.otium, body: { rows: [row(1, 'x')] } })).status;
		const statuses = [];
		for (let i = 0; i < 1_001; i++) statuses.push(await answer());
		expect([statuses[0], statuses.at(-1)]).toEqual([200, 429]);
		expect((await honest.post(leftovers, LEFTOVERS, { rows: [row(5, 'x')] })).status).toBe(200);
	});
});

describe('a further attempt', () => {
	let honest: TestBrowser;
	let other: TestBrowser;
	beforeEach(async () => {
		await build({ rules: { attempts: { ...DEFAULT_RULES.attempts, most: 2 }, admission: 'automatic' } });
		[honest, other] = [await browserAt(house, code, '10.0.0.1'), await browserAt(house, code, '10.0.0.88')];
		await honest.arrive(await honest.knock(), 'honest-comes');
		await honest.post(begin, '/sit/api/begin', { commandId: 'honest-begins' });
		expect((await honest.post(handIn, '/sit/api/hand-in', { commandId: 'honest-ends' })).status).toBe(200);
	});

	it('is the bound device’s: another reads nothing of what was handed in, and takes no attempt', async () => {
		const came = await other.arrive(await other.knock(), 'impostor-comes');
		expect([came.status, came.body.code]).toEqual([409, 'second_device']);
		other.jar.set('otium-sitting', 'made-up');
		for (const [handler, path] of [
			[receipt, '/sit/api/receipt'],
			[picture, '/sit/api/picture']
		] as const)
			expect((await other.get(handler, path)).status).toBe(401);
		expect(await house.otium.db('sitting')).toHaveLength(3);
		expect(await openRefusals(house.otium.db, 's1', house.otium.now())).toMatchObject([{ code: 'again_elsewhere' }]);
		expect((await honest.get(receipt, '/sit/api/receipt')).status).toBe(200);
		const next = await honest.post(again, '/sit/api/again', { commandId: 'honest-again', deviceName: 'Laptop' });
		expect(next.status).toBe(200);
	});

	it('begins on another device once the proctor has freed the first, which then reads nothing either', async () => {
		await other.arrive(await other.knock(), 'on-the-second');
		const [line] = await openRefusals(house.otium.db, 's1', house.otium.now());
		const settle = { otium: house.otium, staff: DUNMORE, params: { id: 's1' } };
		expect((await call(door as never, { ...settle, body: { refusalId: line.id, act: 'forgive' } })).status).toBe(200);
		expect((await other.arrive(await other.knock(), 'on-the-second')).status).toBe(200);
		const next = (await other.device())!.sittingId;
		expect(next).not.toBe('sit0');
		expect(await sitting(next)).toMatchObject({ state: 'let_in', device: { epoch: 1 } });
		expect((await sitting('sit0')).state).toBe('handed_in');
		expect((await honest.get(receipt, '/sit/api/receipt')).status).toBe(409);
		expect((await honest.get(picture, '/sit/api/picture')).status).toBe(409);
		expect((await honest.post(again, '/sit/api/again', { commandId: 'x-again-x', deviceName: 'L' })).status).toBe(409);
	});

	it('of a browser that can’t sign is marked as such, like its first', async () => {
		await build({ rules: { attempts: { ...DEFAULT_RULES.attempts, most: 2 } } });
		const plain = await browserAt(house, code, '10.0.0.5', false);
		await plain.arrive(await plain.knock(), 'plain-comes');
		await letIn();
		await plain.post(begin, '/sit/api/begin', { commandId: 'plain-begins' });
		await plain.post(handIn, '/sit/api/hand-in', { commandId: 'plain-ends' });
		const next = await plain.post(again, '/sit/api/again', { commandId: 'plain-again', deviceName: 'Laptop' });
		expect((await sitting(next.body.sittingId as string)).device).toMatchObject({ unsigned: true });
	});
});

it('a note of another session, from before the sitting was put elsewhere, opens no door there', async () => {
	await build();
	const honest = await browserAt(house, code, '10.0.0.1');
	const note = await honest.knock();
	await house.otium.db('session').insert({
		...(await house.otium.db('session').where({ id: 's1' }).first()),
		id: 's2',
		door_code: null,
		door_code_mark: null
	});
	await bringToWork(house, 1, code);
	await act(house.otium, [
		{
			id: 'put-elsewhere',
			sittingId: 'sit0',
			by: { role: 'coordinator', id: 'ode' },
			body: { kind: 'assign', sessionId: 's2' }
		}
	]);
	const came = await honest.arrive(note, 'from-before');
	expect(came.status).not.toBe(200);
	expect(await sitting()).toMatchObject({ sessionId: 's2', state: 'expected' });
});
