import { nanoid } from 'nanoid';
import { afterEach, describe, expect, it } from 'vitest';
import { MINUTE } from '$core/time';
import { accountFor } from '../closing';
import { drawSitting } from '../live';
import { findSession } from '../session';
import { act, loadSitting } from '../sitting';
import { bringToWork, buildHouse, NINE, openDoor, type House } from '../testing/house';
import { sweep } from './sweep';

let house: House;
afterEach(() => house.close());

type End = 'hand_in' | 'stop' | 'flag' | 'zero';
/** One candidate at work since nine with sixty minutes and one of grace; a right answer is given at half past nine. */
async function atWork(atTimeUp: End): Promise<number> {
	house = await buildHouse({ timing: { atTimeUp, limitMinutes: 60, graceMinutes: 1, atClose: 'finish' } });
	house.clock.at = NINE;
	const epoch = await bringToWork(house, 0, await openDoor(house));
	house.clock.at = NINE + 30 * MINUTE;
	await answer(epoch, 1, 'q1');
	return epoch;
}
const answer = (epoch: number, seq: number, questionId: string) =>
	house.otium.answers.save('sit0', epoch, [
		{ seq, questionId, value: true, marked: false, struck: [], inViewMs: 20_000 }
	] as never);
const at = async (minutes: number) => {
	house.clock.at = NINE + minutes * MINUTE;
	await sweep(house.otium);
	return (await loadSitting(house.otium.db, 'sit0', house.clock.at))!.sitting;
};
const standing = async () =>
	(await house.otium.db('answer_standing').where({ sitting_id: 'sit0' }).pluck('question_id')).sort();
const line = async () => (await accountFor(house.otium.db, (await findSession(house.otium.db, 's1'))!)).lines[0];

describe('when time is up', () => {
	it('handed in for them: in grace answers are still taken, after it the work is in, and scored', async () => {
		const epoch = await atWork('hand_in');
		expect((await at(60.5)).state).toBe('working');
		await answer(epoch, 2, 'q2');
		const sitting = await at(61.5);
		expect(sitting).toMatchObject({ state: 'time_up', ended: { by: 'system' } });
		expect(sitting.ended!.countsNothing).toBeUndefined();
		expect(await standing()).toEqual(['q1', 'q2']);
		expect((await line()).score!.points).toBeGreaterThan(0);
		await answer(epoch, 3, 'q3').catch(() => {});
		expect(await standing()).toEqual(['q1', 'q2']);
	});

	it('no more answers, they hand in: nothing is taken after grace, and nobody hands in for them', async () => {
		const epoch = await atWork('stop');
		expect((await at(90)).state).toBe('working');
		await answer(epoch, 2, 'q2').catch(() => {});
		expect(await standing()).toEqual(['q1']);
		const by = { role: 'candidate' as const, id: 'can0' };
		const [outcome] = await act(house.otium, [
			{ id: nanoid(), sittingId: 'sit0', by, body: { kind: 'hand_in', receipt: 'R', reason: null } }
		]);
		expect(outcome.ok).toBe(true);
		expect((await line()).score!.points).toBeGreaterThan(0);
	});

	it('may continue; answers are marked late: answers stand, those after the end as late ones', async () => {
		const epoch = await atWork('flag');
		expect((await at(90)).state).toBe('working');
		await answer(epoch, 2, 'q2');
		expect(await standing()).toEqual(['q1', 'q2']);
		const late = await house.otium.db('answer').where({ sitting_id: 'sit0' }).orderBy('seq').pluck('late');
		expect(late.map(Boolean)).toEqual([false, true]);
	});

	it('counts nothing: the answers are kept, there is no score, and the candidate is told so', async () => {
		await atWork('zero');
		const sitting = await at(61.5);
		expect(sitting).toMatchObject({ state: 'time_up', ended: { countsNothing: true } });
		expect(await standing()).toEqual(['q1']);
		expect(await line()).toMatchObject({ state: 'time_up', score: null, counted: null, countsNothing: true });
		const picture = await drawSitting(house.otium.db, 'sit0', house.clock.at);
		expect(picture.ended).toMatchObject({ countsNothing: true, by: 'rules' });
	});
});
