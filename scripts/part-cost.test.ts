import { expect, it } from 'vitest';
import { costLines, grown, measured } from './part-cost';

const cost = (yards: number) => ({ name: 'unit', seconds: 10, coreSeconds: 18, yards });

it('a part that takes a fifth more than is written down is named, one that takes less is not', () => {
	expect(grown([cost(1_190)], { unit: { yards: 1_000 } })).toEqual([]);
	expect(grown([cost(1_210)], { unit: { yards: 1_000 } })).toEqual([
		expect.stringContaining('unit takes 1210 yardsticks, 21 % more than the 1000')
	]);
	expect(grown([cost(5_000)], {})).toEqual([]);
});

it('work is measured in seconds of all cores, and in yardsticks', async () => {
	const { cost: one, result } = await measured('spin', async () => {
		const until = process.cpuUsage().user + 400_000;
		while (process.cpuUsage().user < until);
		return 'done';
	});
	expect(result).toBe('done');
	// Of the whole machine, on which others may be at work.
	expect(one.coreSeconds).toBeGreaterThan(0.3);
	expect(one.yards).toBeGreaterThan(1);
	expect(costLines([one])).toHaveLength(2);
});
