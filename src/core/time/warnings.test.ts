import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { MINUTE } from './rules';
import { tellWarning } from './warnings';

/** What is shown while the clock runs through these remaining minutes. */
function shown(warnAt: number[], minutes: number[]): number[] {
	let told: number[] = [];
	return minutes.flatMap((left) => {
		const next = tellWarning(warnAt, left * MINUTE, told);
		told = next.told;
		return next.minutes === null ? [] : [next.minutes];
	});
}

describe('warnings before the end', () => {
	it('come once each, in their minute', () => {
		expect(shown([10, 5, 1], [12, 10, 9.9, 6, 5, 4, 1, 0.5, 0])).toEqual([10, 5, 1]);
	});
	it('come once more when minutes given have put them ahead again', () => {
		expect(shown([10, 5, 1], [5.1, 4, 14, 9, 4])).toEqual([10, 5, 10, 5]);
	});
	it('are only the nearest after a pause of the page, and none when time is up', () => {
		expect(shown([10, 5, 1], [12, 0.8])).toEqual([1]);
		expect(shown([10, 5, 1], [12, 0])).toEqual([]);
	});
	it('are none without a limit', () => {
		expect(tellWarning([5], null, [5])).toEqual({ minutes: null, told: [] });
	});
	it('never come twice while time only runs down, whenever it is looked at', () => {
		fc.assert(
			fc.property(
				fc.uniqueArray(fc.integer({ min: 1, max: 30 }), { maxLength: 5 }),
				fc.array(fc.double({ min: 0, max: 40, noNaN: true })),
				(warnAt, looks) => {
					const all = shown(
						warnAt,
						looks.sort((a, b) => b - a)
					);
					expect(new Set(all).size).toBe(all.length);
				}
			)
		);
	});
});
