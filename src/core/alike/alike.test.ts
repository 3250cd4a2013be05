import { describe, expect, it } from 'vitest';
import { unsafeUniformIntDistribution as uniformInt } from 'pure-rand/distribution/UnsafeUniformIntDistribution';
import { mersenne } from 'pure-rand/generator/MersenneTwister';
import { findAlike, tailOf, type Answered } from '.';

/** A class of people who work alone: the abler somebody and the easier the question, the likelier it is right. */
function classOf(people: number, questions: number, seed: number): Answered[] {
	const random = mersenne(seed);
	const next = () => uniformInt(0, 2 ** 30, random) / 2 ** 30;
	const hard = Array.from({ length: questions }, () => next() * 2 - 1);
	return Array.from({ length: people }, (_, i) => {
		const able = next() * 2 - 1;
		const answers = hard.map((b, q) => {
			const isRight = next() < 1 / (1 + Math.exp(-(1.7 * (able - b) + 0.8)));
			// Wrong choices differ in how tempting they are.
			const wrong = next() < 0.5 ? 'b' : next() < 0.6 ? 'c' : 'd';
			return [`q${q}`, { value: isRight ? 'a' : wrong, isRight }] as const;
		});
		return { sittingId: `s${i}`, answers: new Map(answers) };
	});
}

describe('answers that are too similar', () => {
	it('raises false alarms at most as often as the nominal rate, by simulation', () => {
		const classes = 120;
		let alarms = 0;
		for (let seed = 1; seed <= classes; seed++) if (findAlike(classOf(24, 40, seed)).pairs.length > 0) alarms++;
		// 5 % of 120 are 6; up to 12 would come by chance alone once in a hundred times (binomial).
		expect(alarms).toBeLessThanOrEqual(12);
	});

	it('finds whoever copied half of a paper, and only them', () => {
		let found = 0;
		for (let seed = 1; seed <= 30; seed++) {
			const all = classOf(24, 60, 1_000 + seed);
			for (let q = 0; q < 60; q += 2) all[3].answers.set(`q${q}`, all[7].answers.get(`q${q}`)!);
			const { pairs } = findAlike(all);
			if (pairs.some(({ a, b }) => a === 's3' && b === 's7')) found++;
			expect(pairs.length).toBeLessThanOrEqual(2);
		}
		// Half a paper is little to see for somebody who has most of it right anyhow.
		expect(found).toBeGreaterThanOrEqual(15);
	});

	it('finds a whole copy always, says on which wrong answers, and looks at shared questions alone', () => {
		for (let seed = 1; seed <= 10; seed++) {
			const all = classOf(24, 40, 5_000 + seed);
			const [weakest] = [...all].sort((a, b) => right(a) - right(b));
			const copy = { sittingId: 'copy', answers: new Map(weakest.answers) };
			for (const q of ['q0', 'q1']) copy.answers.delete(q);
			const [pair] = findAlike([...all, copy]).pairs;
			expect([pair.a, pair.b].sort()).toEqual(['copy', weakest.sittingId].sort());
			expect([pair.shared, pair.same]).toEqual([38, 38]);
			expect(pair.wrongQuestions.every((id) => !weakest.answers.get(id)!.isRight)).toBe(true);
		}
	});

	it('compares 300 people in less than the time that an answer may take', () => {
		const all = classOf(300, 60, 3);
		const { compared } = findAlike(all);
		expect(compared).toBe(44_850);
	});

	it('compares the twelve million pairs of a room of 5,000', () => {
		// Two seconds on a quiet machine, of a minute that it may take; with objects for each pair it was minutes.
		expect(findAlike(classOf(5_000, 20, 4)).compared).toBe((5_000 * 4_999) / 2);
	}, 60_000);

	it('the exact tail agrees with the binomial where all chances are equal', () => {
		// P(X ≥ 8), n = 10, p = 0.5: 56 of 1,024.
		expect(
			tailOf(
				Array.from({ length: 10 }, () => 0.5),
				8
			)
		).toBeCloseTo(56 / 1024, 12);
		expect(tailOf([0.2, 0.9], 0)).toBeCloseTo(1, 12);
		expect(tailOf([0.2, 0.9], 2)).toBeCloseTo(0.18, 12);
	});
});

const right = ({ answers }: Answered) => [...answers.values()].filter(({ isRight }) => isRight).length;
