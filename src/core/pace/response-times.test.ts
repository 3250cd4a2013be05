import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { quantile, responseTimes } from './response-times';

describe('quantiles', () => {
	it('are those of definition 7 in Hyndman & Fan 1996', () => {
		// R (`quantile(c(1,2,3,4))`) and a spreadsheet's QUARTILE.INC give these; the values are from memory.
		expect([0, 0.25, 0.5, 0.75, 1].map((p) => quantile([1, 2, 3, 4], p))).toEqual([1, 1.75, 2.5, 3.25, 4]);
		expect(quantile([7], 0.25)).toBe(7);
	});

	it('lie between the shortest and the longest, in order', () => {
		fc.assert(
			fc.property(fc.array(fc.nat(600_000), { minLength: 1, maxLength: 50 }), (times) => {
				const answers = times.map((inViewMs) => ({ questionId: 'q', inViewMs }));
				const [one] = responseTimes(answers, new Map([['q', 3_000]]));
				const five = [one.shortest, one.lower, one.median, one.upper, one.longest];
				expect(five).toEqual([...five].sort((a, b) => a - b));
				expect(one.shortest).toBe(Math.min(...times));
				expect(one.longest).toBe(Math.max(...times));
			})
		);
	});
});

describe('response times', () => {
	it('are told question by question in the order of the paper, without what nobody has answered', () => {
		const answers = [
			{ questionId: 'b', inViewMs: 40_000 },
			{ questionId: 'a', inViewMs: 2_999 },
			{ questionId: 'a', inViewMs: 3_000 },
			{ questionId: 'a', inViewMs: 61_000 }
		];
		const thresholds = new Map([
			['a', 3_000],
			['b', 10_000],
			['c', 3_000]
		]);
		expect(responseTimes(answers, thresholds)).toMatchObject([
			{ questionId: 'a', answers: 3, median: 3_000, longest: 61_000, rapid: 1 },
			{ questionId: 'b', answers: 1, median: 40_000, rapid: 0 }
		]);
	});
});
