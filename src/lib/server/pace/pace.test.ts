import { nanoid } from 'nanoid';
import { afterEach, beforeEach, expect, it } from 'vitest';
import { DEFAULT_RULES } from '$core/session';
import { MINUTE } from '$core/time';
import { act, loadSittings } from '../sitting';
import { bringToWork, buildHouse, openDoor, PROCTOR, type House } from '../testing/house';

let house: House;
beforeEach(async () => {
	house = await buildHouse({ rules: { pace: { ...DEFAULT_RULES.pace, watched: true } } });
});
afterEach(() => house.close());

const answer = (i: number, epoch: number, seq: number, questionId: string, inViewMs: number) =>
	house.otium.answers.save(`sit${i}`, epoch, [{ seq, questionId, value: true, marked: false, struck: [], inViewMs }]);
const asked = async (i: number, body: Parameters<typeof act>[1][number]['body']) =>
	act(house.otium, [{ id: nanoid(), sittingId: `sit${i}`, by: PROCTOR, body }]);

it('what a browser claims to have had in view is held against working time, holds left out', async () => {
	const { otium, clock } = house;
	const epoch = await bringToWork(house, 0, await openDoor(house));
	clock.at += 2 * MINUTE;
	await asked(0, { kind: 'hold', reason: 'Fire alarm', stopsClock: true });
	clock.at += 30 * MINUTE;
	await asked(0, { kind: 'resume' });
	clock.at += 2 * MINUTE;
	// Of four minutes of work it claims to have looked at two questions for twenty.
	await answer(0, epoch, 1, 'q1', 15 * MINUTE);
	await answer(0, epoch, 2, 'q2', 5 * MINUTE);
	const loaded = await loadSittings(otium.db, ['sit0'], clock.at);
	const responses = (await otium.pace.responsesOf(otium.db, loaded)).get('sit0')!;
	expect(responses.map(({ inViewMs }) => Math.round(inViewMs / MINUTE))).toEqual([3, 1]);
});

it('is written for everybody it has changed for, each their own, and told to the room', async () => {
	const { otium, clock } = house;
	const code = await openDoor(house);
	const epochs = [
		await bringToWork(house, 0, code),
		await bringToWork(house, 1, code),
		await bringToWork(house, 2, code)
	];
	clock.at += 10 * MINUTE;
	// Two in no time, one in that of reading.
	for (const [i, inView] of [50, 50, 2 * MINUTE].entries())
		for (const [nth, question] of ['q1', 'q2', 'q3'].entries()) await answer(i, epochs[i], nth + 1, question, inView);
	const told: string[] = [];
	const { answered } = otium.hub;
	otium.hub.answered = (saved) => {
		told.push(...saved.map(({ sittingId }) => sittingId));
		answered.call(otium.hub, saved);
	};
	await otium.pace.sweep();
	const rows = await otium.db('progress').orderBy('sitting_id').select('sitting_id', 'pace', 'rapid');
	expect(rows).toEqual([
		{ sitting_id: 'sit0', pace: 'spoiled', rapid: 3 },
		{ sitting_id: 'sit1', pace: 'spoiled', rapid: 3 },
		{ sitting_id: 'sit2', pace: 'calm', rapid: 0 }
	]);
	expect(told.sort()).toEqual(['sit0', 'sit1']);
	// And nothing is written again where nothing has changed.
	told.length = 0;
	await otium.pace.sweep();
	expect(told).toEqual([]);
});
