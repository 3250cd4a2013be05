import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import type { Question } from '../paper';
import { correlation, cronbachAlpha, figuresOf, median, standardError, variance, type SatPaper } from '.';

/**
 * Section 6 of the Law School Admission Test: 1,000 people, five items, by pattern of right answers (Bock and Lieberman
 * 1970). The frequencies are from memory of the table as textbooks and statistics packages print it; their marginal sums
 * are checked below against the published shares.
 */
const LSAT6: [string, number][] = [
	['00000', 3],
	['00001', 6],
	['00010', 2],
	['00011', 11],
	['00100', 1],
	['00101', 1],
	['00110', 3],
	['00111', 4],
	['01000', 1],
	['01001', 8],
	['01010', 0],
	['01011', 16],
	['01100', 0],
	['01101', 3],
	['01110', 2],
	['01111', 15],
	['10000', 10],
	['10001', 29],
	['10010', 14],
	['10011', 81],
	['10100', 3],
	['10101', 28],
	['10110', 15],
	['10111', 80],
	['11000', 16],
	['11001', 56],
	['11010', 21],
	['11011', 173],
	['11100', 11],
	['11101', 61],
	['11110', 28],
	['11111', 298]
];
const people = LSAT6.flatMap(([pattern, n]) => Array.from({ length: n }, () => [...pattern].map(Number)));

const question = (id: string, change: Partial<Question> = {}): Question =>
	({
		id,
		kind: 'single',
		stem: id,
		points: 1,
		topic: '',
		choices: ['r', 'w', 'x'].map((choice) => ({ id: choice, text: choice })),
		answer: 'r',
		...change
	}) as Question;
const sat = (rows: number[][], answer = (right: number, _: number, __: number) => (right ? 'r' : 'w')): SatPaper[] =>
	rows.map((row, i) => ({
		sittingId: `s${i}`,
		site: i % 2 ? 'Quayside' : 'Lighthouse Point',
		language: null,
		questions: row.map((points, q) => ({
			questionId: `q${q}`,
			points,
			most: 1,
			answer: answer(points, i, q),
			inViewMs: 30_000 + i,
			toMark: false,
			isOut: false
		}))
	}));
const five = [0, 1, 2, 3, 4].map((q) => question(`q${q}`));

describe('figures of questions', () => {
	it('LSAT-6: shares right .924 .709 .553 .763 .870 and alpha 0.295, as published', () => {
		const { questions, alpha } = figuresOf(five, sat(people));
		expect(questions.map(({ facility }) => Number(facility!.toFixed(3)))).toEqual([0.924, 0.709, 0.553, 0.763, 0.87]);
		expect(alpha.value).toBeCloseTo(0.295, 3);
		expect(alpha.over).toBe(5);
		expect(cronbachAlpha(people)).toBeCloseTo(alpha.value!, 12);
		// Without an item: the same as alpha of the four others.
		for (const item of [0, 3])
			expect(alpha.without[`q${item}`]).toBeCloseTo(
				cronbachAlpha(people.map((row) => row.filter((_, q) => q !== item)))!,
				9
			);
	});

	it('KR-20 is alpha of right and wrong answers (Kuder and Richardson 1937)', () => {
		fc.assert(
			fc.property(
				fc.array(fc.array(fc.nat(1), { minLength: 4, maxLength: 4 }), { minLength: 3, maxLength: 30 }),
				(rows) => {
					const totals = variance(rows.map((row) => row.reduce((a, b) => a + b, 0)))!;
					fc.pre(totals > 0);
					const pq = [0, 1, 2, 3].reduce((sum, item) => {
						const p = rows.filter((row) => row[item] === 1).length / rows.length;
						return sum + p * (1 - p);
					}, 0);
					expect(cronbachAlpha(rows)).toBeCloseTo((4 / 3) * (1 - pq / totals), 9);
				}
			)
		);
	});

	it('correlation and median against worked examples', () => {
		// Anscombe (1973), first set: r = 0.81642.
		const x = [10, 8, 13, 9, 11, 14, 6, 4, 12, 7, 5];
		const y = [8.04, 6.95, 7.58, 8.81, 8.33, 9.96, 7.24, 4.26, 10.84, 4.82, 5.68];
		expect(correlation(x.map((one, i) => [one, y[i]] as const))).toBeCloseTo(0.81642, 5);
		expect(
			correlation([
				[1, 2],
				[1, 3]
			])
		).toBeNull();
		expect([median([3, 1, 2]), median([4, 1, 2, 3]), median([])]).toEqual([2, 2.5, null]);
		// σ = 10 and α = 0.91 give a standard error of 3: the example in common use.
		expect(standardError(10, 0.91)).toBeCloseTo(3, 9);
	});

	it('discrimination is with the rest of the paper, without the question itself', () => {
		// Two questions that have nothing to do with each other: with itself in the total it would be 0.71.
		const rows = [
			[0, 0],
			[0, 1],
			[1, 0],
			[1, 1]
		].flatMap((row) => Array.from({ length: 10 }, () => row));
		expect(figuresOf(five, sat(rows)).questions[0].discrimination).toBeCloseTo(0, 9);
	});

	it('discrimination of right and wrong is the point-biserial correlation, by its own formula', () => {
		// r = (M₁ − M₀) / s · √(p q), s the population deviation (Glass and Hopkins 1996, 7.20).
		const rows = fc.array(fc.array(fc.nat(1), { minLength: 5, maxLength: 5 }), { minLength: 4, maxLength: 40 });
		fc.assert(
			fc.property(rows, (rows) => {
				const rest = rows.map((row) => row.slice(1).reduce((a, b) => a + b, 0));
				const average = (of: number[]) => of.reduce((a, b) => a + b, 0) / of.length;
				const right = rest.filter((_, i) => rows[i][0] === 1);
				const wrong = rest.filter((_, i) => rows[i][0] === 0);
				const s = Math.sqrt(average(rest.map((one) => (one - average(rest)) ** 2)));
				const { discrimination } = figuresOf(five, sat(rows)).questions[0];
				if (right.length === 0 || wrong.length === 0 || s === 0) {
					expect(discrimination).toBeNull();
					return;
				}
				const p = right.length / rows.length;
				expect(discrimination).toBeCloseTo(((average(right) - average(wrong)) / s) * Math.sqrt(p * (1 - p)), 9);
			})
		);
	});

	it('flags a key that the best do not take, and names nothing where ten have not answered', () => {
		const rows = Array.from({ length: 30 }, (_, i) => [
			i < 10 ? 0 : 1,
			...Array.from({ length: 8 }, (_, q) => (q + i < 18 ? 1 : 0))
		]);
		const nine = [question('q0'), ...Array.from({ length: 8 }, (_, q) => question(`q${q + 1}`))];
		const { questions } = figuresOf(nine, sat(rows));
		expect(questions[0].flags).toEqual(expect.arrayContaining(['best_prefer_wrong', 'against', 'untaken']));
		expect(questions[0].taken.find(({ value }) => value === 'w')!.thirds[0]).toBe(10);
		expect(figuresOf(nine, sat(rows.slice(0, 9))).questions.every(({ flags }) => flags.length === 0)).toBe(true);
	});

	it('property: shares are shares, everybody is counted once, and a question left out changes no other’s figures but the rest', () => {
		const rows = fc.array(fc.array(fc.nat(1), { minLength: 5, maxLength: 5 }), { minLength: 1, maxLength: 40 });
		fc.assert(
			fc.property(rows, (rows) => {
				const { questions, points } = figuresOf(five, sat(rows));
				for (const one of questions) {
					expect(one.seen).toBe(rows.length);
					expect(one.taken.reduce((sum, { taken }) => sum + taken, 0)).toBe(rows.length);
					expect(one.taken.every(({ taken, thirds }) => thirds[0] + thirds[1] + thirds[2] === taken)).toBe(true);
					expect(one.bySite.reduce((sum, { seen }) => sum + seen, 0)).toBe(rows.length);
					if (one.discrimination !== null) expect(Math.abs(one.discrimination)).toBeLessThanOrEqual(1 + 1e-9);
				}
				expect(points.most!).toBeLessThanOrEqual(5);
			})
		);
	});
});
