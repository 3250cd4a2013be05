import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DIFFICULTIES, EXPECTED_SHARE } from '../paper';
import { cellInWords, fitsCell, met, type PlanCell } from '../plan';
import { costOf, fillPlan, type Choosable } from './fill-plan';
import { parallelForms } from './parallel-forms';
import { runs } from '$core/testing/runs';

const NOW = Date.parse('2026-12-08T09:00:00Z');
const DAY = 86_400_000;
const difficulty = fc.constantFrom(...DIFFICULTIES);
const choosable = fc.record({
	topic: fc.constantFrom('Tides', 'Tides / Heights', 'Lights'),
	difficulty: fc.option(difficulty),
	points: fc.constantFrom(1, 2),
	minutes: fc.constantFrom(1, 1.5, 2.5),
	lastUsed: fc.option(fc.constantFrom(NOW - DAY, NOW - 200 * DAY, NOW - 800 * DAY)),
	isKnown: fc.boolean()
});
const bankOf = (size: number): fc.Arbitrary<Choosable[]> =>
	fc.array(choosable, { maxLength: size }).map((all) => all.map((one, i) => ({ ...one, id: `q${i}` })));
const cell: fc.Arbitrary<PlanCell> = fc.record({
	topic: fc.constantFrom('', 'Tides', 'Tides / Heights', 'Lights'),
	difficulty: fc.option(difficulty),
	count: fc.integer({ min: 0, max: 2 })
});

describe('a plan', () => {
	it('counts each question once, in the narrowest cell that wants it', () => {
		const plan: PlanCell[] = [
			{ topic: '', difficulty: null, count: 3 },
			{ topic: 'Tides', difficulty: null, count: 1 },
			{ topic: 'Tides', difficulty: 'easy', count: 1 }
		];
		const one = (topic: string, hard: 'easy' | 'hard') => ({ topic, difficulty: hard });
		expect(
			met([one('Tides / Heights', 'easy'), one('Tides', 'easy'), one('Tides', 'hard'), one('Lights', 'easy')], plan)
		).toEqual([2, 1, 1]);
		expect(plan.map(cellInWords)).toEqual(['3 on any topic', '1 on Tides', '1 easy on Tides']);
	});

	it('is filled as well as trying every choice would: none cheaper exists', async () => {
		await fc.assert(
			fc.asyncProperty(
				bankOf(7),
				fc.array(cell, { minLength: 1, maxLength: 3 }),
				fc.option(fc.constantFrom(3, 6)),
				async (bank, plan, minutes) => {
					const filled = await fillPlan(bank, plan, { minutes, now: NOW });
					const used = filled.ids.flat();
					expect(new Set(used).size).toBe(used.length);
					filled.ids.forEach((ids, c) =>
						ids.forEach((id) =>
							expect(
								fitsCell(
									bank.find((one) => one.id === id)!,
									plan[c]
								)
							).toBe(true)
						)
					);
					expect(filled.isBest).toBe(true);
					expect(costOfAll(bank, plan, filled.ids, minutes)).toBeCloseTo(cheapest(bank, plan, minutes), 4);
				}
			),
			{ numRuns: runs(40) }
		);
	});

	it('names what the bank does not have', async () => {
		const filled = await fillPlan([], [{ topic: 'Tides', difficulty: 'easy', count: 2 }], { minutes: null, now: NOW });
		expect(filled.missing).toEqual([{ cell: { topic: 'Tides', difficulty: 'easy', count: 2 }, count: 2 }]);
	});

	it('60 of 5,000 in well under ten seconds', async () => {
		const bank = Array.from({ length: 5_000 }, (_, i) => ({
			id: `q${i}`,
			topic: `T${i % 10} / S${i % 40}`,
			difficulty: DIFFICULTIES[i % 3],
			points: 1,
			minutes: 1 + (i % 7) / 4,
			lastUsed: i % 5 === 0 ? NOW - (i % 300) * DAY : null,
			isKnown: i % 11 === 0
		}));
		const plan = Array.from({ length: 20 }, (_, i): PlanCell => ({
			topic: `T${i % 10}`,
			difficulty: i < 10 ? DIFFICULTIES[i % 3] : null,
			count: 3
		}));
		const filled = await fillPlan(bank, plan, { minutes: 90, now: NOW });
		expect(filled.ids.flat()).toHaveLength(60);
		expect(filled.missing).toEqual([]);
		expect(filled.minutes).toBeCloseTo(90, 0);
		const known = new Set(bank.filter(({ isKnown }) => isKnown).map(({ id }) => id));
		expect(filled.ids.flat().filter((id) => known.has(id))).toEqual([]);
	}, 60_000);
});

describe('parallel forms', () => {
	it('differ as little as any division does', async () => {
		const question = fc.record({
			topic: fc.constantFrom('Tides', 'Lights'),
			difficulty: fc.option(difficulty),
			points: fc.constantFrom(1, 2, 3),
			minutes: fc.constantFrom(1, 2)
		});
		await fc.assert(
			fc.asyncProperty(fc.array(question, { minLength: 4, maxLength: 7 }), async (questions) => {
				const bank = questions.map((one, i) => ({ ...one, id: `q${i}` }));
				const { ids, isBest } = await parallelForms(bank, { forms: 2, each: 2 });
				expect(ids.map((form) => form.length)).toEqual([2, 2]);
				expect(new Set(ids.flat()).size).toBe(4);
				expect(isBest).toBe(true);
				const differenceOf = (forms: string[][]) => {
					const sums = (amount: (one: (typeof bank)[number]) => number) => {
						const all = forms.map((form) =>
							form.reduce((sum, id) => sum + amount(bank.find((one) => one.id === id)!), 0)
						);
						return Math.max(...all) - Math.min(...all);
					};
					const topics = new Set(bank.map(({ topic }) => topic));
					const byTopic =
						topics.size > 1 ? [...topics].map((topic) => 4 * sums((one) => (one.topic === topic ? 1 : 0))) : [];
					return (
						20 * sums(({ points }) => points) +
						10 * sums((one) => one.points * EXPECTED_SHARE[one.difficulty ?? 'medium']) +
						sums(({ minutes }) => minutes) +
						byTopic.reduce((sum, one) => sum + one, 0)
					);
				};
				let best = Infinity;
				for (const first of pairs(bank.map(({ id }) => id)))
					for (const second of pairs(bank.map(({ id }) => id).filter((id) => !first.includes(id))))
						best = Math.min(best, differenceOf([first, second]));
				expect(differenceOf(ids)).toBeCloseTo(best, 4);
			}),
			{ numRuns: runs(30) }
		);
	});

	it('too few questions are told', async () => {
		await expect(parallelForms([], { forms: 2, each: 1 })).rejects.toThrow('take 2 questions, and there are 0');
	});

	it('6 × 40 of 240 in 60 topics come the plain way where the search finds nothing in its time', async () => {
		const bank = Array.from({ length: 240 }, (_, i) => ({
			id: `q${i}`,
			topic: `T${i % 60}`,
			difficulty: DIFFICULTIES[(i * 5) % 3],
			points: 1 + ((i * 37) % 97) / 100,
			minutes: 1 + ((i * 11) % 23) / 7
		}));
		const { ids, figures, isBest } = await parallelForms(bank, { forms: 6, each: 40, seconds: 0.05 });
		expect(isBest).toBe(false);
		expect(ids.map((form) => form.length)).toEqual(Array(6).fill(40));
		expect(new Set(ids.flat()).size).toBe(240);
		const points = figures.map((form) => form.points);
		// Within a tenth of what each is worth.
		expect(Math.max(...points) - Math.min(...points)).toBeLessThan(Math.min(...points) / 10);
	}, 60_000);

	it('4 × 40 of 400 in ten seconds, alike to a point', async () => {
		const bank = Array.from({ length: 400 }, (_, i) => ({
			id: `q${i}`,
			topic: `T${(i * 7) % 8}`,
			difficulty: DIFFICULTIES[(i * 5) % 3],
			points: 1 + (i % 3),
			minutes: 1 + ((i * 11) % 7) / 4
		}));
		const { ids, figures } = await parallelForms(bank, { forms: 4, each: 40 });
		expect(new Set(ids.flat()).size).toBe(160);
		const spread = (all: number[]) => Math.max(...all) - Math.min(...all);
		expect(spread(figures.map(({ points }) => points))).toBe(0);
		expect(spread(figures.map(({ expected }) => expected))).toBeLessThan(0.5);
		expect(spread(figures.map(({ minutes }) => minutes))).toBeLessThan(3);
	}, 60_000);
});

function pairs(ids: string[]): string[][] {
	return ids.flatMap((a, i) => ids.slice(i + 1).map((b) => [a, b]));
}

/** What a choice costs, as the program reckons it. */
function costOfAll(bank: Choosable[], plan: PlanCell[], ids: string[][], minutes: number | null): number {
	const chosen = ids.flat().map((id) => bank.find((one) => one.id === id)!);
	const missing = plan.reduce((sum, cell, c) => sum + cell.count - ids[c].length, 0);
	const taken = chosen.reduce((sum, one) => sum + one.minutes, 0);
	const canTime = minutes !== null && plan.some((cell) => cell.count > 0 && bank.some((one) => fitsCell(one, cell)));
	return (
		1_000 * missing +
		chosen.reduce((sum, one) => sum + costOf(one, NOW), 0) +
		(canTime ? 0.5 * Math.abs(taken - minutes) : 0)
	);
}

/** The cheapest of all choices, by trying them. */
function cheapest(bank: Choosable[], plan: PlanCell[], minutes: number | null): number {
	let best = Infinity;
	const ids: string[][] = plan.map(() => []);
	const tryFrom = (q: number) => {
		if (q === bank.length) {
			best = Math.min(best, costOfAll(bank, plan, ids, minutes));
			return;
		}
		tryFrom(q + 1);
		plan.forEach((cell, c) => {
			if (ids[c].length >= cell.count || !fitsCell(bank[q], cell)) return;
			ids[c].push(bank[q].id);
			tryFrom(q + 1);
			ids[c].pop();
		});
	};
	tryFrom(0);
	return best;
}
