import { afterEach, describe, expect, it } from 'vitest';
import type { FormRule, Paper } from '$core/paper';
import { DEFAULT_RULES } from '$core/session';
import { drawSitting } from '../live';
import { bringToWork, buildHouse, openDoor, PAPER, type House } from '../testing/house';
import { formOf } from './begin';

let house: House;
afterEach(() => house.close());

const FORMED: Paper = {
	...PAPER,
	forms: [
		{ name: 'A', questions: ['q1', 'q2', 'q3'] },
		{ name: 'B', questions: ['q4', 'q5', 'q6'] }
	]
};

/** Twelve at work: ten in the first row of seats, two behind the first of them. */
async function atWork(forms: FormRule) {
	const order = { ...DEFAULT_RULES.order, forms };
	house = await buildHouse({ candidates: 12, rules: { order }, paper: FORMED });
	const door = await openDoor(house);
	const dealt = [];
	for (const i of house.people.keys()) {
		await bringToWork(house, i, door);
		dealt.push((await formOf(house.otium.db, `sit${i}`))!);
	}
	return dealt;
}

describe('forms of a paper', () => {
	it('by seat: nobody has that of whoever sits beside, before or behind', async () => {
		const dealt = await atWork('seat');
		expect(dealt.map(({ name }) => name).join('')).toBe('BABABABABAAB');
		for (const { name, questions } of dealt)
			expect(questions.map(({ id }) => id).sort()).toEqual(name === 'A' ? ['q1', 'q2', 'q3'] : ['q4', 'q5', 'q6']);
	});

	it('one for all; and the paper is worth what a form is', async () => {
		const dealt = await atWork('B');
		expect(dealt.every(({ name }) => name === 'B')).toBe(true);
		const { paper } = await drawSitting(house.otium.db, 'sit0', house.otium.now());
		expect(paper).toMatchObject({ questions: 3, points: 3 });
	});

	it('by group and by site: one for those who belong together', async () => {
		expect(new Set((await atWork('group')).map(({ name }) => name))).toEqual(new Set(['A']));
		await house.close();
		expect(new Set((await atWork('site')).map(({ name }) => name))).toEqual(new Set(['A']));
	});

	it('drawn: both are there', async () => {
		expect(new Set((await atWork('dealt')).map(({ name }) => name))).toEqual(new Set(['A', 'B']));
	});
});
