import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { checkedTimes, isRapid, PACE_LEVELS, paceOf, thresholdMs, wordsOf, type Response } from '.';

const quick: Response = { questionId: 'q', inViewMs: 1_000, thresholdMs: 3_000 };
const slow: Response = { ...quick, inViewMs: 30_000 };
const run = (signs: string, questions = 40) =>
	paceOf(
		[...signs].map((sign) => (sign === 'r' ? quick : slow)),
		questions
	);

describe('the threshold', () => {
	// NT10 of Wise & Ma (2012): ten per cent of the mean, at most ten seconds.
	it.each([
		[45_000, 4_500],
		[20_000, 2_000],
		[100_000, 10_000],
		[300_000, 10_000]
	])('with thirty observations of %d ms on average it is %d ms', (meanMs, expected) =>
		expect(thresholdMs(50, { count: 30, meanMs })).toBeCloseTo(expected)
	);

	it('until then the words decide, read at twice 238 words a minute, between three and ten seconds', () => {
		expect(thresholdMs(50, { count: 29, meanMs: 45_000 })).toBeCloseTo((50 / 476) * 60_000);
		expect(thresholdMs(5, null)).toBe(3_000);
		expect(thresholdMs(500, null)).toBe(10_000);
	});

	it('counts the words of stem and choices', () => {
		const question = { id: 'q', kind: 'single', stem: 'Which is it?', points: 1, topic: '', answer: 'a' } as const;
		expect(
			wordsOf({
				...question,
				choices: [
					{ id: 'a', text: 'the first one' },
					{ id: 'b', text: 'none' }
				]
			})
		).toBe(7);
	});
});

describe('pace', () => {
	it.each([
		['', 'calm'],
		['ssssssssss', 'calm'],
		['rr', 'calm'],
		['srrsr', 'watch'],
		['rrr', 'watch'],
		// Three rapid ones lie further back than the last five, and are less than a tenth of forty.
		['rrrsssss', 'calm'],
		['rsrsssrsssssrsssss', 'watch'],
		['rrrrr', 'hold'],
		['srrrrr', 'hold'],
		['rrrrrs', 'watch'],
		['rsrsrsrsrsrsrsrsrsrsrsrs', 'spoiled']
	])('%s is %s', (signs, level) => expect(run(signs).level).toBe(level));

	it('is spoiled from thirty per cent of the paper, not of what was answered', () => {
		expect(run('rsrs', 20).level).toBe('watch');
		expect(run('rsrsrsrsrs', 20)).toMatchObject({ rapid: 5, share: 0.25, level: 'watch' });
		expect(run('rsrsrsrsrsrs', 20)).toMatchObject({ rapid: 6, share: 0.3, level: 'spoiled' });
	});

	it('effort is the share that is not rapid (Wise & Kong 2005)', () => {
		expect(run('').effort).toBeNull();
		expect(run('ssss').effort).toBe(1);
		expect(run('rsss').effort).toBe(0.75);
	});

	it('a slower answer never makes the level worse', () => {
		const signs = fc.array(fc.constantFrom('r', 's'), { minLength: 1, maxLength: 40 });
		fc.assert(
			fc.property(signs, fc.nat(39), (given, at) => {
				const calmer = [...given];
				calmer[at % given.length] = 's';
				const rank = (list: string[]) => PACE_LEVELS.indexOf(run(list.join('')).level);
				expect(rank(calmer)).toBeLessThanOrEqual(rank(given));
			})
		);
	});

	it('exactly at the threshold is not rapid', () =>
		expect(isRapid({ inViewMs: 3_000, thresholdMs: 3_000 })).toBe(false));
});

describe('claimed times', () => {
	it('stand while they fit into the time that passed, and shrink together when they do not', () => {
		expect(checkedTimes([10, 20], 40)).toEqual([10, 20]);
		expect(checkedTimes([60, 20], 40)).toEqual([30, 10]);
		expect(checkedTimes([], 0)).toEqual([]);
	});

	it('never add up to more than what passed', () => {
		fc.assert(
			fc.property(fc.array(fc.nat(100_000), { maxLength: 30 }), fc.nat(1_000_000), (claims, elapsed) => {
				const sum = checkedTimes(claims, elapsed).reduce((total, ms) => total + ms, 0);
				expect(sum).toBeLessThanOrEqual(Math.max(elapsed, 0) + 1e-6);
			})
		);
	});
});
