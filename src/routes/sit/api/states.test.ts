import { afterEach, expect, it } from 'vitest';
import type { CommandBody, SittingState } from '$core/sitting';
import { DEFAULT_RULES } from '$core/session';
import { act, loadSitting, type Request } from '$lib/server/sitting';
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
import { POST as again } from './again/+server';
import { POST as answers } from './answers/+server';
import { POST as beat } from './beat/+server';
import { POST as begin } from './begin/+server';
import { POST as rest } from './break/+server';
import { POST as hand } from './hand/+server';
import { POST as handIn } from './hand-in/+server';
import { POST as lapses } from './lapses/+server';
import { POST as messages } from './messages/+server';
import { GET as page } from './page/+server';
import { GET as paper } from './paper/+server';
import { GET as picture } from './picture/+server';
import { POST as ready } from './ready/+server';
import { GET as review } from './review/+server';
import { POST as snapshot } from './snapshot/+server';

let house: House;
afterEach(() => house.close());

let ids = 0;
const commandId = () => `command-${++ids}`;
const revision = () => ({
	seq: 1,
	questionId: nameOnDevice(house, 'sit0', 'q1'),
	value: true,
	marked: false,
	struck: [],
	inViewMs: 5
});
/** What a device may ask, each as an honest one would. */
const ROUTES = {
	again: [again, () => ({ commandId: commandId(), deviceName: 'Laptop' })],
	answers: [answers, () => ({ revisions: [revision()] })],
	beat: [beat, () => ({ at: null })],
	begin: [begin, () => ({ commandId: commandId() })],
	break: [rest, () => ({ on: true })],
	hand: [hand, () => ({ up: true })],
	'hand-in': [handIn, () => ({ commandId: commandId() })],
	lapses: [lapses, () => ({ lapses: [{ id: commandId(), kind: 'copy', from: 1, to: 2 }] })],
	messages: [messages, () => ({ seen: ['none'] })],
	page: [page, () => ({})],
	paper: [paper, () => ({})],
	picture: [picture, () => ({})],
	ready: [ready, () => ({ deviceName: 'Laptop', results: [] })],
	review: [review, () => ({})],
	snapshot: [snapshot, () => ({})]
} as const;
type Route = keyof typeof ROUTES;

const let_in: [CommandBody, 'proctor'] = [{ kind: 'let_in' }, 'proctor'];
const candidate = (body: CommandBody): [CommandBody, 'candidate'] => [body, 'candidate'];
const hold: [CommandBody, 'proctor'] = [{ kind: 'hold', reason: 'a bag', stopsClock: true }, 'proctor'];
const carry: [CommandBody, 'proctor'] = [{ kind: 'carry_over', reason: null }, 'proctor'];
const handed = candidate({ kind: 'hand_in', receipt: 'ABCDE-12345', reason: null });
const aside: [CommandBody, 'coordinator'] = [{ kind: 'set_aside', reason: 'another sat for them' }, 'coordinator'];
const free: [CommandBody, 'proctor'] = [{ kind: 'move_device' }, 'proctor'];

/** How a sitting comes to stand where it stands, once it has arrived. `begin` deals the form as well. */
const WAYS: Record<string, { state: SittingState; way: ('begin' | [CommandBody, string])[] }> = {
	'at the door': { state: 'at_door', way: [] },
	'let in': { state: 'let_in', way: [let_in] },
	working: { state: 'working', way: [let_in, 'begin'] },
	'on hold': { state: 'on_hold', way: [let_in, 'begin', hold] },
	'handed in': { state: 'handed_in', way: [let_in, 'begin', handed] },
	'set aside': { state: 'set_aside', way: [let_in, 'begin', aside] },
	'carried over': { state: 'carried_over', way: [let_in, 'begin', carry] },
	'freed at work': { state: 'at_door', way: [let_in, 'begin', free] }
};

/** Status by route; 409 and no question, where nothing is said. */
const MAY: Record<string, Partial<Record<Route, number>>> = {
	'at the door': { answers: 422, beat: 200, hand: 200, lapses: 200, messages: 200, picture: 200, ready: 200 },
	'let in': { answers: 422, beat: 200, begin: 200, hand: 200, lapses: 200, messages: 200, picture: 200, ready: 200 },
	working: {
		answers: 200,
		beat: 200,
		hand: 200,
		'hand-in': 200,
		lapses: 200,
		messages: 200,
		page: 200,
		paper: 200,
		picture: 200,
		ready: 200
	},
	// What was written before the hold may still come; what comes after it is kept, and told as such.
	'on hold': {
		answers: 200,
		beat: 200,
		hand: 200,
		'hand-in': 200,
		lapses: 200,
		messages: 200,
		picture: 200,
		ready: 200
	},
	'handed in': { beat: 200, hand: 200, lapses: 200, messages: 200, picture: 200, ready: 200 },
	'set aside': { beat: 200, hand: 200, lapses: 200, messages: 200, picture: 200, ready: 200 },
	'carried over': { beat: 200, picture: 200 },
	'freed at work': { beat: 200, picture: 200 }
};

it.each(Object.keys(WAYS))(
	'%s: what the device may do, and what it may not',
	async (name) => {
		const { state, way } = WAYS[name];
		const seen: Partial<Record<Route, number>> = {};
		for (const route of Object.keys(ROUTES) as Route[]) {
			house = await buildHouse({ rules: { lockdown: { ...DEFAULT_RULES.lockdown, level: 'open' } } });
			const arrived = await arriveAt(house, 0, await openDoor(house));
			if (!arrived.ok) throw new Error(arrived.refusal.code);
			const { sittingId, epoch } = arrived.device;
			const device = { sittingId, epoch };
			for (const step of way) {
				if (step === 'begin') {
					const begun = await call(begin as never, { otium: house.otium, device, body: { commandId: commandId() } });
					expect(begun.status).toBe(200);
					continue;
				}
				const [body, role] = step;
				const by: Request['by'] =
					role === 'candidate' ? { role, id: 'can0' } : role === 'coordinator' ? COORDINATOR : PROCTOR;
				const [outcome] = await act(house.otium, [
					{ id: commandId(), sittingId, by, body, facts: { finishWord: 'not_asked' } }
				]);
				expect(outcome).toMatchObject({ ok: true });
			}
			expect((await loadSitting(house.otium.db, sittingId, house.otium.now()))!.sitting.state).toBe(state);
			const [handler, body] = ROUTES[route];
			const answer = await call(handler as never, { otium: house.otium, device, body: body() });
			seen[route] = answer.status;
			// Not a question leaves but to whoever works.
			if (!['page', 'paper'].includes(route) || answer.status !== 200) expect(answer.text).not.toContain('Is 1 even?');
			await house.close();
		}
		const wanted = Object.fromEntries(Object.keys(ROUTES).map((route) => [route, MAY[name][route as Route] ?? 409]));
		expect(seen).toEqual(wanted);
		house = await buildHouse();
	},
	60_000
);
