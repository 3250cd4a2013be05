import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deal } from './deal';
import { poolInWords } from './each-gets';
import { chanceOfAtLeast, poolFor, poolStrength, sharedOverAll } from './pool-strength';
import { poolsOf } from './pools';
import { doubtsOfPaper } from './paper-doubts';
import { dealtPoints, type Paper, type Question } from './question';
import { runs } from '$core/testing/runs';

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
			{ numRuns: runs(60) }
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

describe('a pool by difficulty', () => {
	const question = (id: number, difficulty?: 'easy' | 'medium' | 'hard', points = 1): Question => ({
		id: `q${id}`,
		kind: 'true_false',
		stem: `Is ${id} even?`,
		answer: id % 2 === 0,
		points,
		topic: '',
		...(difficulty ? { difficulty } : {})
	});
	const questions = Array.from({ length: 12 }, (_, i) => question(i, i < 6 ? 'easy' : i < 10 ? 'hard' : undefined));
	const paper: Paper = { title: '', parts: [{ title: 'Marks', draw: 3, strata: { easy: 2, hard: 1 }, questions }] };
	const dealt = (seed: number) =>
		deal(paper, { questionsInOwnOrder: true, choicesInOwnOrder: true }, seed).questions.map(({ id }) =>
			Number(id.slice(1))
		);

	it('deals so many of each, and of no other', () => {
		const seen = new Set<number>();
		for (let seed = 0; seed < 200; seed++) {
			const ids = dealt(seed);
			expect(ids.filter((id) => id < 6)).toHaveLength(2);
			expect(ids.filter((id) => id >= 6 && id < 10)).toHaveLength(1);
			for (const id of ids) seen.add(id);
		}
		// Each that can be dealt is; those of no difficulty never.
		expect([...seen].sort((a, b) => a - b)).toEqual([0, 1, 2, 3, 4, 5, 6, 7, 8, 9]);
	});

	it('shares by strata what all pairs share, counted', () => {
		// 2 of 6 and 1 of 4: 4/6 + 1/4 on average (hypergeometric in each, added).
		const [easy, hard] = poolsOf(paper.parts[0]).map(({ draw, units }) => poolStrength(draw, units.length));
		expect(easy.mean + hard.mean).toBeCloseTo(4 / 6 + 1 / 4, 12);
		const exactly = sharedOverAll([easy, hard]);
		const pairs = [...Array(6).keys()].flatMap((a) => [...Array(a).keys()].map((b) => [a, b]));
		const counted = [0, 0, 0, 0];
		for (const one of pairs)
			for (const other of pairs)
				for (const a of [0, 1, 2, 3])
					for (const b of [0, 1, 2, 3]) counted[one.filter((id) => other.includes(id)).length + Number(a === b)]++;
		const all = counted.reduce((sum, n) => sum + n, 0);
		exactly.forEach((chance, shared) => expect(chance).toBeCloseTo(counted[shared] / all, 12));
	});

	it('is doubtful where a difficulty has too few, where points differ in it, and where some are never dealt', () => {
		const codes = (part: Paper['parts'][number]) => doubtsOfPaper({ title: '', parts: [part] }).map(({ code }) => code);
		expect(codes(paper.parts[0])).toEqual(['never_dealt']);
		expect(codes({ ...paper.parts[0], draw: 9, strata: { easy: 2, hard: 7 } })).toContain('too_few_in_pool');
		// Points may differ between difficulties, not in one.
		const weighed = questions.slice(0, 10).map((one) => (one.difficulty === 'hard' ? { ...one, points: 3 } : one));
		expect(codes({ ...paper.parts[0], questions: weighed })).toEqual([]);
		expect(dealtPoints({ parts: [{ ...paper.parts[0], questions: weighed }], title: '' })).toBe(5);
		expect(codes({ ...paper.parts[0], questions: weighed.with(0, { ...weighed[0], points: 2 }) })).toEqual([
			'points_differ'
		]);
	});
});
