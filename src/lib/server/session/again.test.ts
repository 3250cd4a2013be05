import { nanoid } from 'nanoid';
import { afterEach, describe, expect, it } from 'vitest';
import { rightAnswer } from '$core/marking';
import { DEFAULT_RULES } from '$core/session';
import { MINUTE } from '$core/time';
import { accountFor, resultsCsv } from '../closing';
import { drawRoom, drawSitting } from '../live';
import { act, begin, loadSitting } from '../sitting';
import { arriveAt, bringToWork, buildHouse, COORDINATOR, NINE, openDoor, PROCTOR, type House } from '../testing/house';
import { endSession, findSession, offerAgain, sitAgain } from '.';
import { rosterFor } from './roster';

let house: House;
afterEach(() => house.close());

const build = async (attempts: Partial<typeof DEFAULT_RULES.attempts>) => {
	house = await buildHouse({
		rules: { attempts: { ...DEFAULT_RULES.attempts, ...attempts } },
		timing: { lastEntryMinutes: null }
	});
	return openDoor(house);
};
const asked = (commandId = nanoid()) => ({ commandId, deviceId: 'device0', deviceName: 'Laptop' });
const handIn = (sittingId: string) =>
	act(house.otium, [
		{ id: nanoid(), sittingId, by: PROCTOR, body: { kind: 'hand_in', receipt: nanoid(8), reason: 'Done' } }
	]);
const work = async (sittingId: string) => {
	await act(house.otium, [{ id: nanoid(), sittingId, by: PROCTOR, body: { kind: 'let_in' } }]);
	const begun = await begin(house.otium, sittingId, nanoid(), '');
	if (!begun.ok) throw new Error(begun.refusal.code);
	return (await loadSitting(house.otium.db, sittingId, house.clock.at))!.sitting.device!.epoch;
};
/** Answers the nth question of a form rightly, so that one point more is reached. */
const answer = async (sittingId: string, epoch: number, count: number) => {
	const { form } = await house.otium.db('form').where({ sitting_id: sittingId }).first('form');
	const { content } = await house.otium.db('paper').first('content');
	const questions = JSON.parse(content).parts.flatMap((part: { questions: unknown[] }) => part.questions);
	const revisions = (JSON.parse(form).questions as { id: string }[]).slice(0, count).map((one, i) => ({
		seq: i + 1,
		questionId: one.id,
		value: rightAnswer(questions.find((question: { id: string }) => question.id === one.id)),
		marked: false,
		struck: [],
		inViewMs: 20_000
	}));
	await house.otium.answers.save(sittingId, epoch, revisions as never);
};

describe('another attempt in the same session', () => {
	it('is a sitting of its own in the same seat; the first stays, and the ledger still has everyone once', async () => {
		const code = await build({ most: 2 });
		const epoch = await bringToWork(house, 0, code);
		await answer('sit0', epoch, 2);
		await handIn('sit0');
		const next = await sitAgain(house.otium, 'sit0', asked('again-once'));
		if (!next.ok) throw new Error(next.refusal.message);
		// A double click, and a second tab, are the same attempt.
		expect(await sitAgain(house.otium, 'sit0', asked('again-once'))).toEqual(next);
		expect(await sitAgain(house.otium, 'sit0', asked())).toEqual(next);
		expect(await house.otium.db('sitting').where({ candidate_id: 'can0' })).toHaveLength(2);

		const second = await work(next.sittingId);
		await answer(next.sittingId, second, 1);
		const session = (await findSession(house.otium.db, 's1'))!;
		const drawn = (await drawRoom(house.otium.db, 's1', house.clock.at))!;
		expect(drawn.head.expected).toBe(3);
		expect(drawn.seats.map((seat) => [seat.id, seat.seat])).toEqual([
			[next.sittingId, 'A1'],
			['sit1', 'A2'],
			['sit2', 'A3']
		]);
		await handIn(next.sittingId);
		const account = await accountFor(house.otium.db, session);
		expect(account.ledger).toMatchObject({ addsUp: true, expected: 3 });
		const [line] = account.lines;
		// Two right at first, one then: the highest counts, and both stand in the results.
		expect(line).toMatchObject({ attempt: 2, state: 'handed_in' });
		expect(line.counted!.points).toBeGreaterThan(line.score!.points);
		expect(resultsCsv(session, account).split('\r\n')[0]).toContain('"Attempt","Counting points"');
		// Both are used.
		expect(await sitAgain(house.otium, next.sittingId, asked())).toMatchObject({ ok: false });
		expect(offerAgain((await loadSitting(house.otium.db, next.sittingId, house.clock.at))!, house.clock.at)).toBeNull();
	});

	it.each([
		['first', 'more'],
		['last', 'same'],
		['mean', 'more']
	] as const)('%s: counts by the rule', async (counts, than) => {
		const code = await build({ most: 2, counts });
		await answer('sit0', await bringToWork(house, 0, code), 2);
		await handIn('sit0');
		const next = await sitAgain(house.otium, 'sit0', asked());
		if (!next.ok) throw new Error('refused');
		await answer(next.sittingId, await work(next.sittingId), 1);
		await handIn(next.sittingId);
		const [line] = (await accountFor(house.otium.db, (await findSession(house.otium.db, 's1'))!)).lines;
		if (than === 'same') expect(line.counted!.points).toBe(line.score!.points);
		else expect(line.counted!.points).toBeGreaterThan(line.score!.points);
	});

	it('waits as long as the rule says, and tells from when', async () => {
		const code = await build({ most: 3, waitMinutes: 20, laterWaitMinutes: 20 });
		await bringToWork(house, 0, code);
		await handIn('sit0');
		const picture = await drawSitting(house.otium.db, 'sit0', house.clock.at);
		expect(picture.again).toEqual({ attempt: 2, most: 3, from: house.clock.at + 20 * MINUTE });
		expect(await sitAgain(house.otium, 'sit0', asked())).toMatchObject({
			ok: false,
			refusal: { message: expect.stringMatching(/can begin from/) }
		});
		expect(await house.otium.db('sitting').where({ candidate_id: 'can0' })).toHaveLength(1);
		house.clock.at += 20 * MINUTE;
		expect((await sitAgain(house.otium, 'sit0', asked())).ok).toBe(true);
	});

	it('there is none with one attempt, after the session, or for whom the door is shut: and then nothing is left behind', async () => {
		const code = await build({ most: 1 });
		await bringToWork(house, 0, code);
		await handIn('sit0');
		expect((await drawSitting(house.otium.db, 'sit0', house.clock.at)).again).toBeNull();
		expect((await sitAgain(house.otium, 'sit0', asked())).ok).toBe(false);
		await house.otium.db('session').update({
			rules: house.otium.db.raw("json_set(rules, '$.attempts.most', 2, '$.timing.lastEntryMinutes', 5)")
		});
		house.clock.at = NINE + 30 * MINUTE;
		expect((await drawSitting(house.otium.db, 'sit0', house.clock.at)).again).toBeNull();
		expect(await sitAgain(house.otium, 'sit0', asked())).toMatchObject({ refusal: { code: 'gone' } });
		expect(await house.otium.db('sitting')).toHaveLength(3);
		expect(await house.otium.db('roster').where({ sitting_id: 'sit0' })).toHaveLength(1);
	});

	it('is asked for, not begun, when somebody comes to the door again', async () => {
		const code = await build({ most: 2 });
		await bringToWork(house, 0, code);
		await handIn('sit0');
		const back = await arriveAt(house, 0, code);
		expect(back).toMatchObject({ ok: true });
		if (back.ok) expect(back.device.sittingId).toBe('sit0');
		expect((await drawSitting(house.otium.db, 'sit0', house.clock.at)).again).toMatchObject({ attempt: 2 });
		expect((await loadSitting(house.otium.db, 'sit0', house.clock.at))!.sitting.state).toBe('handed_in');
	});
});

describe('a session that ends', () => {
	it('carries over who waits for a further attempt; what they have reached before still counts', async () => {
		const code = await build({ most: 2 });
		await answer('sit0', await bringToWork(house, 0, code), 2);
		await handIn('sit0');
		expect((await sitAgain(house.otium, 'sit0', asked())).ok).toBe(true);
		expect((await endSession(house.otium, 's1', COORDINATOR)).ok).toBe(true);
		const account = await accountFor(house.otium.db, (await findSession(house.otium.db, 's1'))!);
		expect(account.ledger).toMatchObject({ addsUp: true, expected: 3 });
		expect(account.lines[0]).toMatchObject({ state: 'carried_over', attempt: 2, score: null });
		expect(account.lines[0].counted!.points).toBeGreaterThan(0);
	});
});

describe('another attempt in a later session', () => {
	it('those who have attempts left are expected, the others are named with why not', async () => {
		const code = await build({ most: 2 });
		await bringToWork(house, 0, code);
		await handIn('sit0');
		const ask = (
			attempts: { most: number; waitMinutes: number; laterWaitMinutes: number },
			opens = NINE + 24 * 60 * MINUTE
		) =>
			rosterFor(house.otium.db, {
				administrationId: 'winter',
				paperId: 'numbers',
				kind: 'live',
				groupIds: ['watch'],
				only: ['can0'],
				alsoIds: [],
				attempts,
				opens
			});
		expect((await ask({ most: 2, waitMinutes: 0, laterWaitMinutes: 0 })).people).toMatchObject([
			{ candidateId: 'can0', sittingId: null, attempt: 2 }
		]);
		expect((await ask({ most: 1, waitMinutes: 0, laterWaitMinutes: 0 })).leftOut).toEqual([
			'Left out, have sat this paper already: Given0 Family0.'
		]);
		expect((await ask({ most: 2, waitMinutes: 43_200, laterWaitMinutes: 43_200 })).leftOut[0]).toContain(
			'must wait 43200 minutes between attempts'
		);
	});
});
