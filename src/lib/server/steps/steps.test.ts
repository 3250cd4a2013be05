import { nanoid } from 'nanoid';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { Step } from '$core/steps';
import { helpForCandidates, helpIn, saveHelp } from '../contacts';
import { planSession } from '../session';
import { act } from '../sitting';
import {
	arriveAt,
	bringToWork,
	buildHouse,
	CANDIDATE,
	COORDINATOR,
	makeUpInput,
	NINE,
	openDoor,
	type House
} from '../testing/house';
import { saveSteps, standingOf, stepsOf, tickStep } from '.';

let house: House;
beforeEach(async () => (house = await buildHouse()));
afterEach(() => house.close());
const oral: Step = { id: 'oral', title: 'The oral', paperTitle: null, afterId: null, leastPercent: null };
const numbers: Step = { id: 'numbers', title: 'Numbers', paperTitle: 'Numbers', afterId: 'oral', leastPercent: null };
const more: Step = { id: 'more', title: 'More', paperTitle: 'More', afterId: 'numbers', leastPercent: 50 };
const save = (steps: Step[], was: Step[] = []) => saveSteps(house.otium, COORDINATOR, 'winter', { was, steps });
const tick = (step: Step, i: number, why: string | null = null, on = true) =>
	tickStep(house.otium, COORDINATOR, step, { candidateIds: [`can${i}`], on, why });

describe('parts in order', () => {
	it('are kept in their order, and a change that somebody else made is not written over', async () => {
		await save([oral, numbers]);
		expect(await stepsOf(house.otium.db, 'winter')).toEqual([oral, numbers]);
		await expect(save([oral], [])).rejects.toMatchObject({ problem: { code: 'changed_meanwhile' } });
		await expect(save([numbers, oral], [oral, numbers])).rejects.toMatchObject({ problem: { code: 'not_taken' } });
		await tick(oral, 0);
		await save(
			[numbers].map((step) => ({ ...step, afterId: null })),
			[oral, numbers]
		);
		expect(await house.otium.db('step_done')).toEqual([]);
	});

	it('close the door to whoever has not done what comes before, told to both sides, until it is ticked', async () => {
		await save([oral, numbers]);
		const code = await openDoor(house);
		expect(await arriveAt(house, 0, code)).toMatchObject({
			ok: false,
			refusal: { code: 'step_closed', instead: 'First comes The oral. Your proctor can see this.' }
		});
		expect(await house.otium.db('door_refusal').where({ code: 'step_closed' })).toHaveLength(1);
		await tick(oral, 0);
		expect((await arriveAt(house, 0, code)).ok).toBe(true);
		// Who comes back to work begun is asked nothing, also when the tick is taken back.
		await tick(oral, 1);
		await bringToWork(house, 1, code);
		await tick(oral, 1, null, false);
		expect((await arriveAt(house, 1, code)).ok).toBe(true);
	});

	it('a paper is opened for one with a reason, and for nobody else', async () => {
		await save([oral, numbers]);
		const code = await openDoor(house);
		await expect(tick(numbers, 0)).rejects.toMatchObject({ problem: { code: 'reason_missing' } });
		await tick(numbers, 0, 'the oral is on another day');
		expect((await arriveAt(house, 0, code)).ok).toBe(true);
		expect((await arriveAt(house, 1, code)).ok).toBe(false);
	});

	it('a minimum is measured by what counts of the earlier paper', async () => {
		await save([oral, numbers, more]);
		await tick(oral, 0);
		const epoch = await bringToWork(house, 0, await openDoor(house));
		// Two of six, which at the door of the next is a third.
		for (const [i, questionId] of ['q1', 'q3'].entries())
			await house.otium.answers.save('sit0', epoch, [
				{ seq: i + 1, questionId, value: true, marked: false, struck: [], inViewMs: 9_000 }
			] as never);
		await act(house.otium, [
			{ id: nanoid(), sittingId: 'sit0', by: CANDIDATE, body: { kind: 'hand_in', receipt: 'R', reason: null } }
		]);
		const steps = await stepsOf(house.otium.db, 'winter');
		const standing = await standingOf(house.otium.db, 'winter', steps, ['can0', 'can1']);
		const of = (candidate: string, step: string) => standing.get(candidate)!.get(step)!;
		expect(of('can0', 'numbers')).toMatchObject({ isDone: true });
		expect(of('can0', 'numbers').percent).toBeCloseTo(100 / 3);
		expect(of('can0', 'more').standing).toEqual({ open: false, why: 'It takes 50 % in Numbers; 33 % were reached.' });
		expect(of('can1', 'more').standing).toEqual({ open: false, why: 'First comes Numbers.' });
	});

	it('are told while a session is planned, by name', async () => {
		await save([oral, numbers]);
		await tick(oral, 2);
		await house.otium.db('sitting').update({ state: 'absent' });
		const planned = await planSession(house.otium.db, 'winter', makeUpInput(), NINE);
		const found = planned.ok && planned.plan.findings.find(({ code }) => code === 'K38');
		expect(found).toMatchObject({
			level: 'warn',
			message: expect.stringContaining('Given0 Family0 and Given1 Family1')
		});
		expect((found as { message: string }).message).not.toContain('Family2');
	});
});

describe('contacts', () => {
	const one = {
		problem: 'Network',
		name: 'Una Sorrel',
		telephone: '+44 20 7946 0018',
		email: '',
		hours: '',
		forCandidates: true
	};
	it('are kept in order, shown to candidates only where it says so, and on the administration’s days', async () => {
		const { otium } = house;
		const other = { ...one, problem: 'Illness', forCandidates: false };
		await saveHelp(otium, COORDINATOR, 'winter', { was: [], contacts: [one, other] });
		expect(await helpIn(otium.db, 'winter')).toEqual([one, other]);
		await expect(saveHelp(otium, COORDINATOR, 'winter', { was: [], contacts: [] })).rejects.toMatchObject({
			problem: { code: 'changed_meanwhile' }
		});
		expect((await helpForCandidates(otium.db, '2026-12-08')).map(({ problem }) => problem)).toEqual(['Network']);
		await otium.db('administration').update({ opens_on: '2026-12-09', closes_on: '2026-12-10' });
		expect(await helpForCandidates(otium.db, '2026-12-08')).toEqual([]);
	});
});
