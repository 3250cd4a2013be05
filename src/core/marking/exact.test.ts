import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { runs } from '$core/testing/runs';
import type { Form, Paper, Question } from '../paper';
import { shownPercent, shownPoints, writtenPoints } from '../results';
import { exact, exactSum, markForm, reachesPercent, shareOf } from './index';

/** So many questions of so many choices each, of which the first is right. */
function paperOf(questions: number, choices: number): { paper: Paper; form: Form } {
	const list: Question[] = Array.from({ length: questions }, (_, i) => ({
		id: `q${i}`,
		kind: 'single',
		stem: '?',
		points: 1,
		topic: '',
		choices: Array.from({ length: choices }, (_, c) => ({ id: `c${c}`, text: `${c}` })),
		answer: 'c0'
	}));
	const paper: Paper = { title: 'P', parts: [{ title: '', draw: null, questions: list }] };
	return { paper, form: { questions: list } as unknown as Form };
}
const answersOf = (right: number, wrong: number) =>
	new Map(Array.from({ length: right + wrong }, (_, i) => [`q${i}`, i < right ? 'c0' : 'c1'] as const));

describe('points are exact', () => {
	it('11 right, 3 wrong and 6 blank of 20 with four choices are 10 of 20, and pass at half', () => {
		const { paper, form } = paperOf(20, 4);
		const score = markForm(paper, form, answersOf(11, 3), { wrong: 'guessing' });
		expect(score).toMatchObject({ points: 10, outOf: 20 });
		expect(reachesPercent(score, 50)).toBe(true);
		expect([shownPoints(score.points), shownPercent(score)]).toEqual(['10', '50 %']);
	});

	it('any right and wrong, with three to seven choices, come to what whole numbers say, whatever the order', () => {
		// R − W/(k−1), in whole numbers: ((k−1)R − W) / (k−1).
		for (const choices of [3, 4, 5, 6, 7]) {
			const { paper, form } = paperOf(20, choices);
			const turned = { ...form, questions: [...form.questions].reverse() };
			for (let right = 0; right <= 20; right++) {
				for (let wrong = 0; right + wrong <= 20; wrong++) {
					const answers = answersOf(right, wrong);
					const score = markForm(paper, form, answers, { wrong: 'guessing' });
					const top = (choices - 1) * right - wrong;
					expect(score.points).toBe(top / (choices - 1));
					expect(markForm(paper, turned, answers, { wrong: 'guessing' }).points).toBe(score.points);
					for (let percent = 5; percent < 100; percent += 5)
						expect(reachesPercent(score, percent)).toBe(top * 100 >= percent * 20 * (choices - 1));
				}
			}
		}
	}, 60_000);

	it('sums of shares are what their fractions come to', () => {
		const share = fc.record({
			of: fc.integer({ min: 1, max: 60 }),
			parts: fc.nat(60),
			points: fc.integer({ min: 1, max: 40 })
		});
		fc.assert(
			fc.property(fc.array(share, { minLength: 1, maxLength: 40 }), (all) => {
				const numbers = all.map(({ of, parts, points }) => shareOf(parts, of).mul(points).valueOf());
				let [top, bottom] = [0n, 1n];
				for (const { of, parts, points } of all) {
					top = top * BigInt(of) + BigInt(parts * points) * bottom;
					bottom *= BigInt(of);
				}
				const sum = exactSum(numbers);
				const shuffled = exactSum([...numbers].sort());
				expect(shuffled).toBe(sum);
				// What it is nearest to: the difference is less than the last bit of a number of that size.
				const scale = 10n ** 20n;
				const scaled = (top * scale) / bottom;
				expect(Number(scaled) / 1e20).toBeCloseTo(sum, 9);
			}),
			{ numRuns: runs(60) }
		);
	});

	it('a number stands for the fraction that it was made of', () => {
		expect(exact(0.1).toFraction()).toBe('1/10');
		expect(exact(25 / 3).toFraction()).toBe('25/3');
		expect(exactSum([0.1, 0.2])).toBe(0.3);
		expect(exactSum([3 / 5, 3 / 5, 3 / 5])).toBe(1.8);
	});
});

describe('what is shown', () => {
	it('is rounded to a tenth of a per cent, and never up to a whole one that was not reached', () => {
		const percent = (points: number, outOf: number) => shownPercent({ points, outOf });
		expect(percent(2, 3)).toBe('66.7 %');
		expect(percent(7, 15)).toBe('46.7 %');
		expect(percent(13, 30)).toBe('43.3 %');
		expect(percent(1249, 2500)).toBe('49.9 %');
		expect(percent(8, 20)).toBe('40 %');
		expect(percent(0, 0)).toBe('0 %');
	});

	it('is two places of points on pages, and six in files', () => {
		expect([shownPoints(25 / 3), writtenPoints(25 / 3)]).toEqual(['8.33', 8.333333]);
		expect(shownPoints(-1 / 9)).toBe('-0.11');
	});
});
