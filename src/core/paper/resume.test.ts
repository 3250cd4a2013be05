import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { placeToResume } from './resume';

const at = (answered: number[], more: Partial<Parameters<typeof placeToResume>[0]> = {}) =>
	placeToResume({
		questions: 10,
		touched: answered,
		seen: null,
		forwardBy: null,
		isSettled: (place) => answered.includes(place),
		...more
	});

describe('where somebody goes on', () => {
	it('is the first question when nothing was touched', () => {
		expect(at([])).toBe(0);
	});
	it('is the question after the last answered, as long as that is blank', () => {
		expect(at([0, 1, 2])).toBe(3);
		expect(at([3, 4, 2])).toBe(2);
		expect(at([8, 9])).toBe(9);
	});
	it('is not the blank that was left behind on purpose', () => {
		expect(at([0, 5])).toBe(6);
	});
	it('is the question itself when it was touched and is blank again', () => {
		expect(at([0, 1], { isSettled: (place) => place === 0 })).toBe(1);
	});
	it('is the very place when the same tab was loaded anew', () => {
		expect(at([0, 1, 2], { seen: 7 })).toBe(7);
	});
	it('is on the page that was reached, where nobody may go back', () => {
		expect(at([4], { seen: 0, forwardBy: 1 })).toBe(4);
		expect(at([4], { forwardBy: 1 })).toBe(4);
		expect(at([4], { seen: 3, forwardBy: 5 })).toBe(3);
		expect(at([4, 1], { forwardBy: 3, isSettled: () => false })).toBe(4);
		fc.assert(
			fc.property(
				fc.array(fc.nat(9), { maxLength: 10 }),
				fc.option(fc.nat(9)),
				fc.integer({ min: 1, max: 5 }),
				(touched, seen, forwardBy) => {
					const place = at(touched, { seen, forwardBy });
					const furthest = Math.max(0, ...touched);
					expect(Math.floor(place / forwardBy)).toBe(Math.floor(furthest / forwardBy));
					expect(place).toBeLessThan(10);
				}
			)
		);
	});
});
