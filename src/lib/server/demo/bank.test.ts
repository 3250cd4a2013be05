import { describe, expect, it } from 'vitest';
import { answerFor, doubtsOf, questionsOf, type CalculatedQuestion } from '$core/paper';
import { DEMO_PAPERS } from './papers';
import { BANK, BANK_REMARKS } from './bank';

describe('the demo’s bank', () => {
	it('has nothing doubtful in it but what keeps its place, and ids of its own', () => {
		expect(BANK.flatMap((question) => doubtsOf(question, {})).filter(({ code }) => code !== 'keeps_place')).toEqual([]);
		expect(new Set(BANK.map(({ id }) => id)).size).toBe(BANK.length);
		for (const { id } of BANK_REMARKS) expect(BANK.some((question) => question.id === id)).toBe(true);
	});

	it('is large enough to choose from, and asks nothing twice', () => {
		const papers = DEMO_PAPERS.flatMap(({ paper }) => questionsOf(paper));
		expect(BANK.length + papers.length).toBeGreaterThanOrEqual(400);
		const stems = BANK.map(({ stem }) => stem);
		expect(stems.filter((stem, i) => stems.indexOf(stem) < i)).toEqual([]);
	});

	/** Reckoned by hand, with tables for the sines: 0.1045 for 6°, 0.01745 for the tangent of 1°. */
	it.each([
		['range of the tide?', { high: 6.4, low: 1.6 }, 4.8],
		['under the keel?', { depth: 3.2, height: 2.5, draught: 1.8 }, 3.9],
		['over the rock?', { drying: 1.4, height: 3 }, 1.6],
		['three hours after', { low: 1, range: 4.8 }, 3.4],
		['two hours after', { low: 1, range: 4.8 }, 2.2],
		['How far does she go', { speed: 7.5, minutes: 48 }, 6],
		['What is her speed?', { miles: 7.5, minutes: 50 }, 9],
		['magnetic course', { course: 75, variation: 5 }, 80],
		['magnetic course', { course: 355, variation: 10 }, 5],
		['What is the true course', { course: 210, deviation: 3, variation: 7 }, 206],
		['What is the true course', { course: 5, deviation: 1, variation: 12 }, 354],
		['How far off', { height: 40, angle: 1 }, 1.237],
		['metacentric height', { km: 7.1, kg: 6.3 }, 0.8],
		['centre of gravity move', { weight: 40, distance: 6, displacement: 4000 }, 0.06],
		['righting lever', { gm: 0.8, heel: 6 }, 0.0836],
		['one centimetre', { area: 1200 }, 12.3]
	])('%s with %j', (words, drawn, expected) => {
		const question = BANK.find(({ kind, stem }) => kind === 'calculated' && stem.includes(words)) as CalculatedQuestion;
		expect(answerFor(question, drawn as unknown as Record<string, number>)).toBeCloseTo(expected, 3);
	});
});
