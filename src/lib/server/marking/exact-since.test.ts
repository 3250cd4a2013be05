import { afterEach, expect, it } from 'vitest';
import { DEFAULT_RULES } from '$core/session';
import type { Paper } from '$core/paper';
import { resultLines } from '../results';
import { closeAtOnce, type House } from '../testing/house';
import { satHouse } from '../testing/sat';

let house: House;
afterEach(() => house.close());

/** Twenty questions of four choices each. */
const PAPER: Paper = {
	title: 'Buoys',
	parts: [
		{
			title: 'All',
			draw: null,
			questions: Array.from({ length: 20 }, (_, i) => ({
				id: `q${i}`,
				kind: 'single',
				stem: `Buoy ${i}?`,
				points: 1,
				topic: 'Buoys',
				choices: ['w', 'x', 'y', 'z'].map((id) => ({ id, text: id })),
				answer: 'x'
			}))
		}
	]
};
/** Eleven right, three wrong, six blank. */
const answer = (_: number, questionId: string) => {
	const nth = Number(questionId.slice(1));
	return nth < 11 ? 'x' : nth < 14 ? 'w' : null;
};

it('half of the points pass at half; what was closed before points were exact stays as it was told', async () => {
	house = await satHouse(PAPER, 1, answer);
	const { db } = house.otium;
	const rules = {
		...DEFAULT_RULES,
		marking: { ...DEFAULT_RULES.marking, wrong: 'guessing' },
		result: { ...DEFAULT_RULES.result, passPercent: 50 }
	};
	await db('session').update({ rules: JSON.stringify(rules) });
	const result = async () => (await resultLines(db, (query) => query))[0].result;
	expect(await result()).toMatchObject({ points: 10, outOf: 20, passed: true });
	await closeAtOnce(house);
	expect(await result()).toMatchObject({ points: 10, passed: true });
	await db('meta')
		.where({ key: 'points_exact_since' })
		.update({ value: String(house.clock.at + 1) });
	// As it was: added up one by one, in the order in which the questions were dealt.
	const [before] = await resultLines(db, (query) => query);
	const sum = before.marks.reduce((all, mark) => all + mark.points, 0);
	expect(before.result).toMatchObject({ points: sum, passed: sum * 100 >= 50 * 20 });
});
