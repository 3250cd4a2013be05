import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { countingScore, nextAttempt } from '.';

const NOON = Date.UTC(2026, 11, 8, 12);
const MINUTE = 60_000;

describe('another attempt', () => {
	it('there are as many as the rule says, and no sooner than it says', () => {
		const rules = { most: 3, waitMinutes: 30, laterWaitMinutes: 30 };
		expect(nextAttempt(rules, { attempt: 1, endedAt: NOON }, NOON + 30 * MINUTE)).toEqual({ ok: true, attempt: 2 });
		expect(nextAttempt(rules, { attempt: 2, endedAt: NOON }, NOON + 29 * MINUTE)).toEqual({
			ok: false,
			why: 'wait',
			attempt: 3,
			from: NOON + 30 * MINUTE
		});
		expect(nextAttempt(rules, { attempt: 3, endedAt: NOON }, NOON + 999 * MINUTE)).toEqual({
			ok: false,
			why: 'none_left'
		});
		expect(
			nextAttempt({ most: 1, waitMinutes: 0, laterWaitMinutes: 0 }, { attempt: 1, endedAt: NOON }, NOON)
		).toMatchObject({ ok: false });
	});
});

describe('which attempt counts', () => {
	const reached = [
		{ points: 10, outOf: 40, toMark: 0 },
		{ points: 30, outOf: 40, toMark: 0 },
		{ points: 25, outOf: 50, toMark: 0 }
	];
	// Common practice in learning platforms: highest, mean, first or last.
	it('the highest is by share, since forms may differ in what there is to reach', () => {
		expect(countingScore('highest', reached)).toEqual({ points: 30, outOf: 40, toMark: 0 });
		expect(countingScore('first', reached)).toEqual({ points: 10, outOf: 40, toMark: 0 });
		expect(countingScore('last', reached)).toEqual({ points: 25, outOf: 50, toMark: 0 });
		// (25 % + 75 % + 50 %) / 3 = 50 %
		expect(countingScore('mean', reached)).toEqual({ points: 25, outOf: 50, toMark: 0 });
		expect(countingScore('highest', [])).toBeNull();
	});

	it('is points alone, whatever else is known of an attempt', () => {
		const marked = [{ points: 10, outOf: 40, toMark: 0, marks: ['right'] }];
		for (const rule of ['first', 'last', 'highest', 'mean'] as const)
			expect(countingScore(rule, marked)).toEqual({ points: 10, outOf: 40, toMark: 0 });
	});

	it('one attempt is the same by every rule, and every rule stays within what was reached', () => {
		const score = fc
			.integer({ min: 1, max: 100 })
			.chain((outOf) => fc.record({ points: fc.nat(outOf), outOf: fc.constant(outOf), toMark: fc.constant(0) }));
		const rule = fc.constantFrom('highest' as const, 'mean' as const, 'first' as const, 'last' as const);
		fc.assert(
			fc.property(fc.array(score, { minLength: 1, maxLength: 8 }), rule, (all, counts) => {
				expect(countingScore(counts, all.slice(0, 1))!.points).toBeCloseTo(all[0].points, 9);
				const shares = all.map((one) => one.points / one.outOf);
				const counted = countingScore(counts, all)!;
				const share = counted.points / counted.outOf;
				expect(share).toBeGreaterThanOrEqual(Math.min(...shares) - 1e-9);
				expect(share).toBeLessThanOrEqual(Math.max(...shares) + 1e-9);
			})
		);
	});
});
