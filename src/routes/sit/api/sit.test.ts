import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { showDoorCode } from '$core/access';
import type { SittingPicture } from '$core/room';
import { DEFAULT_RULES } from '$core/session';
import { MINUTE } from '$core/time';
import { deviceByToken } from '$lib/server/identity';
import { act, loadSitting } from '$lib/server/sitting';
import { call } from '$lib/server/testing/call';
import { bringToWork, buildHouse, nameOnDevice, openDoor, PROCTOR, type House } from '$lib/server/testing/house';
import { POST as answers } from './answers/+server';
import { POST as arrive } from './arrive/+server';
import { POST as beat } from './beat/+server';
import { POST as begin } from './begin/+server';
import { POST as handIn } from './hand-in/+server';
import { POST as knock } from './knock/+server';
import { POST as leave } from './leave/+server';
import { GET as page } from './page/+server';
import { GET as paper } from './paper/+server';
import { GET as picture } from './picture/+server';
import { GET as stream } from './stream/+server';

let house: House;
afterEach(() => house.close());
const letIn = (i = 0) =>
	act(house.otium, [{ id: `let-in-${i}`, sittingId: `sit${i}`, by: PROCTOR, body: { kind: 'let_in' } }]);
const revision = (seq: number, questionId = 'q1', value: unknown = true) => ({
	seq,
	questionId: /^q\d$/.test(questionId) ? nameOnDevice(house, 'sit0', questionId) : questionId,
	value,
	marked: false,
	struck: [],
	inViewMs: 900
});

describe('from the door to the receipt, by HTTP alone', () => {
	it('each step has its status, its cookie and its words', async () => {
		house = await buildHouse({ rules: { startWord: 'halyard', finishWord: 'Anchor' } });
		const { otium } = house;
		const jar = new Map<string, string>();
		const code = showDoorCode(await openDoor(house));
		const met = await call(knock, { otium, body: { code, number: 'do-1001', family: 'FAMILY0' }, jar });
		expect([met.status, met.body.name, met.body.seat]).toEqual([200, 'Given0 Family0', 'A1']);

		const asked = { note: met.body.note, commandId: 'arrive-once', deviceName: 'Laptop' };
		expect((await call(arrive, { otium, body: asked, jar })).status).toBe(200);
		expect((await call(arrive, { otium, body: asked, jar })).status).toBe(200);
		const device = (await deviceByToken(otium.db, jar.get('otium-sitting')!, otium.now()))!;
		expect(device).toMatchObject({ sittingId: 'sit0', epoch: 1 });

		const seen = async () => (await call(picture, { otium, device })).body.picture as SittingPicture;
		expect(await seen()).toMatchObject({
			state: 'at_door',
			session: { asksStartWord: true },
			paper: { questions: 6, points: 6 }
		});
		expect((await call(paper, { otium, device })).status).toBe(409);
		expect((await call(begin, { otium, device, body: { commandId: 'too-early' } })).body).toMatchObject({
			code: 'not_from_this_state'
		});
		await letIn();
		expect(
			(await call(begin, { otium, device, body: { commandId: 'wrong-word', startWord: 'sheet' } })).body
		).toMatchObject({ code: 'start_word_wrong' });
		expect(
			(await call(begin, { otium, device, body: { commandId: 'begin-once', startWord: ' HALYARD ' } })).status
		).toBe(200);

		const sent = await call(paper, { otium, device });
		expect(sent.body).toMatchObject({ answers: [], lastSeq: 0 });
		expect(sent.text).not.toContain('"answer"');
		expect(
			await call(answers, { otium, device, body: { revisions: [revision(1), revision(2, 'q2', null)] } })
		).toMatchObject({ status: 200, body: { seqs: [1, 2], kept: null } });
		const back = (await call(paper, { otium, device })).body as {
			questions: { id: string }[];
			answers: { questionId: string }[];
		};
		expect(back).toMatchObject({ lastSeq: 2, answers: [{ value: true }, { value: null }] });
		// Under names that are this candidate's own, and the same each time.
		expect(sent.text).not.toMatch(/"q\d"/);
		const names = back.questions.map((question) => question.id);
		expect(back.answers.map(({ questionId }) => names.includes(questionId))).toEqual([true, true]);
		const again = { ...revision(3), questionId: back.answers[1].questionId, value: false };
		expect(await call(answers, { otium, device, body: { revisions: [again] } })).toMatchObject({ status: 200 });
		const row = await otium.db('answer_standing').where({ question_id: 'q2' }).first('value');
		expect(JSON.parse(row.value).value).toBe(false);

		expect(
			(await call(handIn, { otium, device, body: { commandId: 'hand-in-1', finishWord: 'keel' } })).body
		).toMatchObject({ code: 'finish_word_wrong' });
		expect((await call(handIn, { otium, device, body: { commandId: 'hand-in-2', finishWord: 'anchor' } })).status).toBe(
			200
		);
		const first = (await seen()).ended!;
		expect((await call(handIn, { otium, device, body: { commandId: 'hand-in-2', finishWord: 'anchor' } })).status).toBe(
			200
		);
		expect((await seen()).ended).toEqual(first);
		expect(first.receipt).toMatch(/^[0-9A-Z]{5}-[0-9A-Z]{5}$/);
		const late = await call(answers, { otium, device, body: { revisions: [revision(3)] } });
		expect([late.status, late.body.code, late.body.seqs]).toEqual([409, 'after_end', [3]]);
		await call(leave, { otium, jar });
		expect(jar.has('otium-sitting')).toBe(false);
	});
});

describe('refusals', () => {
	beforeEach(async () => {
		house = await buildHouse();
	});

	it('without a device everything is 401, with words for the candidate', async () => {
		for (const handler of [picture, paper, begin, answers, beat, handIn, stream]) {
			const answer = await call(handler as never, { otium: house.otium });
			expect([answer.status, answer.body.code]).toEqual([401, 'not_at_the_door']);
			expect(answer.body.instead).toContain('your answers are safe');
		}
	});

	it('answers that can’t be read are refused with the place of the fault, and nothing of them is kept', async () => {
		const epoch = await bringToWork(house, 0, await openDoor(house));
		const device = { sittingId: 'sit0', epoch };
		const bad: [unknown, number][] = [
			[{ revisions: [] }, 400],
			[{ revisions: [revision(0)] }, 400],
			[{ revisions: [revision(1.5)] }, 400],
			[{ revisions: [revision(1, 'q1', { deep: true })] }, 400],
			[{ revisions: [revision(1, 'q1', { deep: 'words' })] }, 422],
			[{ revisions: [revision(1, 'q1', 'x'.repeat(501))] }, 422],
			[{ revisions: [revision(1, 'q1', 'x'.repeat(40_001))] }, 400],
			[{ revisions: [revision(1, 'q1', ['a'])] }, 422],
			[{ revisions: [{ ...revision(1), inViewMs: -1 }] }, 400],
			[{ revisions: Array.from({ length: 501 }, (_, i) => revision(i + 1)) }, 400],
			[{ revisions: [revision(1, 'elsewhere')] }, 422],
			['{"revisions":', 400]
		];
		for (const [body, status] of bad) {
			const answer = await call(answers, { otium: house.otium, device, body });
			expect([answer.status, typeof answer.body.message]).toEqual([status, 'string']);
		}
		expect(await house.otium.db('answer')).toEqual([]);
	});

	it('one device never reaches another’s sitting: whose it is comes from the token alone', async () => {
		const code = await openDoor(house);
		const epoch = await bringToWork(house, 0, code);
		await bringToWork(house, 1, code);
		const body = { sittingId: 'sit1', revisions: [revision(1)] };
		expect((await call(answers, { otium: house.otium, device: { sittingId: 'sit0', epoch }, body })).status).toBe(200);
		expect(await house.otium.db('answer').pluck('sitting_id')).toEqual(['sit0']);
	});

	it('a device with an old number is told that the paper has moved', async () => {
		const epoch = await bringToWork(house, 0, await openDoor(house));
		await act(house.otium, [{ id: 'free-it-now', sittingId: 'sit0', by: PROCTOR, body: { kind: 'move_device' } }]);
		const device = { sittingId: 'sit0', epoch };
		for (const handler of [paper, begin, handIn]) {
			const answer = await call(handler as never, { otium: house.otium, device, body: { commandId: 'whatever-1' } });
			expect([answer.status, answer.body.code]).toEqual([409, 'second_device']);
		}
		expect((await call(answers, { otium: house.otium, device, body: { revisions: [revision(1)] } })).body.code).toBe(
			'freed_device'
		);
		// It may listen until somebody else sits there, and learns it by its next beat then.
		const heard = () => call(beat, { otium: house.otium, device, body: { at: 0 } });
		expect((await heard()).status).toBe(200);
		await bringToWork(house, 0, await openDoor(house));
		expect([(await heard()).status, (await heard()).body.code]).toEqual([409, 'second_device']);
	});

	it('wrong tries are 429 with the seconds to wait', async () => {
		const code = await openDoor(house);
		const body = { code, number: 'DO-1001', family: 'Nobody' };
		for (let i = 0; i < 6; i++) expect((await call(knock, { otium: house.otium, body })).status).toBe(404);
		const answer = await call(knock, { otium: house.otium, body });
		expect([answer.status, answer.headers.get('retry-after'), answer.body.waitSeconds]).toEqual([429, '2', 2]);
	});
});

describe('what a candidate’s screen is told', () => {
	it('of time: what they would have beginning now, and until when', async () => {
		house = await buildHouse({ timing: { atClose: 'cut', limitMinutes: 90 } });
		const code = await openDoor(house);
		const epoch = await bringToWork(house, 0, code);
		const { body } = await call(picture, { otium: house.otium, device: { sittingId: 'sit0', epoch } });
		const told = body.picture as SittingPicture;
		// Begun at 09:00 with 90 minutes, and the room closes at 10:15.
		expect(told.time.cut).toBe(15 * MINUTE);
		expect(told.time.deadline).toBe(
			(await loadSitting(house.otium.db, 'sit0', house.otium.now()))!.reckoning.windowEnd
		);
	});

	it('nothing of why they are held, and the reason when they are sent back from the door', async () => {
		house = await buildHouse();
		const code = await openDoor(house);
		const epoch = await bringToWork(house, 0, code);
		const device = { sittingId: 'sit0', epoch };
		await act(house.otium, [
			{
				id: 'hold-now-1',
				sittingId: 'sit0',
				by: PROCTOR,
				body: { kind: 'hold', reason: 'talking to neighbour', stopsClock: false }
			}
		]);
		expect((await call(picture, { otium: house.otium, device })).text).not.toContain('neighbour');
	});

	it('that the room waits, where everyone starts together', async () => {
		house = await buildHouse({ timing: { clockStarts: 'room' } });
		const { arriveAt } = await import('$lib/server/testing/house');
		const arrived = await arriveAt(house, 0, await openDoor(house));
		if (!arrived.ok) throw new Error('not arrived');
		await letIn();
		const device = arrived.device;
		expect(
			((await call(picture, { otium: house.otium, device })).body.picture as SittingPicture).session.roomWaits
		).toBe(true);
		expect((await call(begin, { otium: house.otium, device, body: { commandId: 'begin-early' } })).body.code).toBe(
			'room_waits'
		);
		const { startRoom } = await import('$lib/server/session');
		await startRoom(house.otium, 's1', PROCTOR);
		expect((await call(begin, { otium: house.otium, device, body: { commandId: 'begin-now-1' } })).status).toBe(200);
		expect(await startRoom(house.otium, 's1', PROCTOR)).toMatchObject({ ok: false });
	});
});

describe('a paper that does not go back', () => {
	type Sent = { order: string[]; questions: { id: string; stem: string }[] };
	const stemsOf = (body: unknown) => (body as Sent).questions.map(({ stem }) => stem);
	const begunForward = async () => {
		const movement = { ...DEFAULT_RULES.movement, shown: 'pages' as const, perPage: 2, goingBack: false };
		house = await buildHouse({ rules: { movement, order: { ...DEFAULT_RULES.order, questionsInOwnOrder: false } } });
		const epoch = await bringToWork(house, 0, await openDoor(house));
		return { otium: house.otium, device: { sittingId: 'sit0', epoch } };
	};

	it('is sent page by page: a later one comes when it has been reached, and those before it have gone', async () => {
		const one = await begunForward();
		const first = await call(paper, one);
		const { order } = first.body as Sent;
		expect(order).toHaveLength(6);
		expect(stemsOf(first.body)).toEqual(['Is 0 even?', 'Is 1 even?']);
		const turn = (to: number, seq: number) =>
			call(answers, { ...one, body: { revisions: [revision(seq, order[to], null)] } });
		expect((await turn(2, 1)).status).toBe(200);
		expect(stemsOf((await call(page, one)).body)).toEqual(['Is 2 even?', 'Is 3 even?']);
		// Whoever looks ahead has given up what lies between, and is not sent it any more.
		expect((await turn(5, 2)).status).toBe(200);
		expect(stemsOf((await call(page, one)).body)).toEqual(['Is 4 even?', 'Is 5 even?']);
		expect(stemsOf((await call(paper, one)).body)).toEqual(['Is 4 even?', 'Is 5 even?']);
		expect((await turn(1, 3)).body.code).toBe('gone_past');
		expect(stemsOf((await call(page, one)).body)).toEqual(['Is 4 even?', 'Is 5 even?']);
	});

	it('shows no further page when time is up, whatever is sent then', async () => {
		const one = await begunForward();
		const { order } = (await call(paper, one)).body as Sent;
		house.clock.at += 10 * 60 * MINUTE;
		const late = await call(answers, { ...one, body: { revisions: [revision(1, order[4], null)] } });
		expect(late.body.code).toBe('after_end');
		const answer = await call(page, one);
		expect(answer.text).not.toContain('Is 5 even?');
	});
});
