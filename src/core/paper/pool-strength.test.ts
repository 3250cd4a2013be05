import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { poolInWords } from './each-gets';
import { chanceOfAtLeast, poolFor, poolStrength, sharedOverAll } from './pool-strength';

/** Every way to draw `take` of `of`, as sets of indices. */
function draws(take: number, of: number, from = 0): number[][] {
	if (take === 0) return [[]];
	return Array.from({ length: Math.max(0, of - from - take + 1) }, (_, i) => from + i).flatMap((first) =>
		draws(take - 1, of, first + 1).map((rest) => [first, ...rest])
	);
}

describe('the strength of a pool', () => {
	it.each([
		// take² / of: the mean of the hypergeometric distribution.
		[5, 10, 2.5],
		[5, 20, 1.25],
		[5, 100, 0.25]
	])('%i of %i share %d on average', (take, of, mean) => {
		const strength = poolStrength(take, of);
		expect(strength.mean).toBe(mean);
		expect(strength.exactly.reduce((sum, chance, shared) => sum + chance * shared, 0)).toBeCloseTo(mean, 10);
	});

	it('agrees with counting every pair of draws', () => {
		for (const [take, of] of [
			[2, 5],
			[3, 7],
			[4, 6],
			[5, 5],
			[0, 4],
			[1, 1]
		]) {
			const all = draws(take, of);
			const counts = Array(take + 1).fill(0);
			for (const other of all) counts[other.filter((one) => all[0].includes(one)).length]++;
			poolStrength(take, of).exactly.forEach((chance, shared) =>
				expect(chance, `${take} of ${of}, ${shared} shared`).toBeCloseTo(counts[shared] / all.length, 12)
			);
		}
	});

	it('is a distribution with its mean, however large the pool', () => {
		fc.assert(
			fc.property(fc.nat(2_000), fc.nat(18_000), (take, more) => {
				const { exactly, mean } = poolStrength(take, take + more);
				expect(exactly.reduce((sum, one) => sum + one, 0)).toBeCloseTo(1, 9);
				expect(exactly.reduce((sum, one, i) => sum + one * i, 0)).toBeCloseTo(mean, 6);
			}),
			{ numRuns: 60 }
		);
	});

	it('tells the chance of many, and the pool that a wanted overlap takes', () => {
		const five = poolStrength(5, 20);
		expect(chanceOfAtLeast(five, 0)).toBeCloseTo(1, 12);
		// C(15,5) / C(20,5) = 3003 / 15504 share none.
		expect(chanceOfAtLeast(five, 1)).toBeCloseTo(1 - 3003 / 15504, 12);
		expect(poolFor(5, 1.25)).toBe(20);
		expect(poolFor(5, 0.25)).toBe(100);
		expect(poolFor(5, 9)).toBe(5);
	});

	it('adds up over pools as two independent draws do', () => {
		const both = sharedOverAll([poolStrength(1, 2), poolStrength(1, 2)]);
		expect(both.map((one) => Number(one.toFixed(12)))).toEqual([0.25, 0.5, 0.25]);
		expect(sharedOverAll([])).toEqual([1]);
	});

	it('in words: the average, how many pairs share many, and what twice as many would do', () => {
		// 5 of 20: P(3 or more) = (10·105 + 5·15 + 1) / 15504 = 0.0726, one pair of 14.
		expect(poolInWords(poolStrength(5, 20))).toBe(
			'Two neighbours share 1.25 on average, and 3 or more in one pair of 14. With twice as many in the pool: 0.63.'
		);
		expect(poolInWords(poolStrength(5, 5))).toBe('Everybody gets all of it.');
	});

	it('refuses what can’t be dealt', () => {
		expect(() => poolStrength(6, 5)).toThrow(RangeError);
		expect(() => poolStrength(1.5, 5)).toThrow(RangeError);
	});
});
