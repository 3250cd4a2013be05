import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { agreementOf, handStanding, isMarkedTwice, markersFor, NO_PLAN, planFault, type HandPlan } from '.';

const plan = (change: Partial<HandPlan> = {}): HandPlan => ({
	...NO_PLAN,
	markers: ['a', 'b', 'c'].map((id) => ({ id, share: 1 })),
	...change
});

describe('agreement', () => {
	it('kappa of the 2 × 2 example in common use, 20 5 10 15, is 0.4', () => {
		const pairs = [
			[1, 1, 20],
			[1, 0, 5],
			[0, 1, 10],
			[0, 0, 15]
		].flatMap(([a, b, n]) => Array.from({ length: n }, () => [a, b] as const));
		expect(agreementOf(pairs)).toMatchObject({ pairs: 50, exact: 0.7 });
		expect(agreementOf(pairs).kappa).toBeCloseTo(0.4, 12);
	});

	it('property: equal marks agree wholly, it does not matter who is first, and it is never above 1', () => {
		const pairs = fc.array(fc.tuple(fc.nat(6), fc.nat(6)), { minLength: 1, maxLength: 40 });
		fc.assert(
			fc.property(pairs, (pairs) => {
				const { kappa } = agreementOf(pairs);
				const turned = agreementOf(pairs.map(([a, b]) => [b, a] as const));
				if (kappa !== null) {
					expect(turned.kappa).toBeCloseTo(kappa, 9);
					expect(kappa).toBeLessThanOrEqual(1 + 1e-9);
				}
				const same = agreementOf(pairs.map(([a]) => [a, a] as const));
				expect([same.exact, same.kappa === null ? 1 : Math.round(same.kappa * 1e6) / 1e6]).toEqual([1, 1]);
			})
		);
	});
});

describe('who marks what', () => {
	const ids = Array.from({ length: 3_000 }, (_, i) => `s${i}`);
	it('shares come out as they are set, and whoever joins takes only what becomes theirs', () => {
		const before = plan({
			markers: [
				{ id: 'a', share: 2 },
				{ id: 'b', share: 1 }
			]
		});
		const first = ids.map((id) => markersFor(before, 'q', id)[0]);
		const ofA = first.filter((id) => id === 'a').length;
		// 2,000 expected; the deviation of a binomial is 26.
		expect(Math.abs(ofA - 2_000)).toBeLessThan(130);
		const after = plan({ markers: [...before.markers, { id: 'c', share: 1 }] });
		const moved = ids.filter((id, i) => markersFor(after, 'q', id)[0] !== first[i]);
		expect(moved.every((id) => markersFor(after, 'q', id)[0] === 'c')).toBe(true);
		const twice = ids.filter((id) => isMarkedTwice(plan({ secondPercent: 20 }), 'q', id)).length;
		expect(Math.abs(twice - 600)).toBeLessThan(110);
	});

	it('one mark counts, of two near ones the mean, of two apart a third person’s alone', () => {
		const twice = plan({ secondPercent: 100, tolerance: 1 });
		const [one, two, three] = markersFor(twice, 'q', 's');
		expect(handStanding(plan(), 'q', 's', []).next).toHaveLength(1);
		expect(handStanding(plan(), 'q', 's', [{ marker: 'a', points: 3 }])).toMatchObject({ state: 'settled', points: 3 });
		expect(handStanding(twice, 'q', 's', [{ marker: one, points: 3 }])).toMatchObject({ state: 'second', next: [two] });
		const near = [
			{ marker: one, points: 3 },
			{ marker: two, points: 4 }
		];
		expect(handStanding(twice, 'q', 's', near)).toMatchObject({ state: 'settled', points: 3.5 });
		const apart = [
			{ marker: one, points: 1 },
			{ marker: two, points: 4 }
		];
		expect(handStanding(twice, 'q', 's', apart)).toMatchObject({ state: 'third', next: [three] });
		expect(handStanding(twice, 'q', 's', [...apart, { marker: three, points: 2 }])).toMatchObject({ points: 2 });
	});

	it('a plan says what is wrong with it', () => {
		expect(planFault(plan(), 4)).toBeNull();
		expect(planFault(plan({ markers: [{ id: 'a', share: 1 }], secondPercent: 10 }), 4)).toContain('two people');
		expect(planFault(plan({ rubric: [{ id: 'x', text: 'x', points: 3 }] }), 4)).toContain('add up to 3');
		expect(planFault(plan({ markers: [{ id: 'a', share: 0 }] }), 4)).toContain('more than 0');
	});
});
