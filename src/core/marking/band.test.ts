import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { SETTINGS, faultOf } from '../rules';
import { bandOf, bandsAsText, readBands, type Band } from '.';

const BANDS: Band[] = [
	{ fromPercent: 50, name: 'Pass', message: '' },
	{ fromPercent: 80, name: 'Merit', message: 'Well done: go on.' },
	{ fromPercent: 0, name: 'Not yet', message: 'Sit it again.' }
];

describe('bands', () => {
	it('begin at their mark itself, whatever their order, and are compared without rounding', () => {
		const name = (points: number, outOf: number) => bandOf(BANDS, { points, outOf })?.name ?? null;
		expect([name(40, 50), name(39.99, 50), name(25, 50), name(24.99, 50), name(0, 50)]).toEqual([
			'Merit',
			'Pass',
			'Pass',
			'Not yet',
			'Not yet'
		]);
		// A third of 150 is exactly 50; 33.33 of 100 is not a third.
		expect(bandOf([{ fromPercent: 100, name: 'All', message: '' }], { points: 29.999999, outOf: 30 })).toBeNull();
		expect(bandOf([], { points: 1, outOf: 1 })).toBeNull();
	});

	it('a higher score is never in a lower band', () => {
		fc.assert(
			fc.property(fc.nat(100), fc.nat(100), (a, b) => {
				const [low, high] = [Math.min(a, b), Math.max(a, b)].map((points) => bandOf(BANDS, { points, outOf: 100 })!);
				expect(high.fromPercent).toBeGreaterThanOrEqual(low.fromPercent);
			})
		);
	});

	it('are read as they are written, and what can’t be read stays to be told', () => {
		expect(readBands(bandsAsText(BANDS))).toEqual(BANDS);
		expect(readBands(' 80 % Merit : Well done\n\n50 Pass')).toEqual([
			{ fromPercent: 80, name: 'Merit', message: 'Well done' },
			{ fromPercent: 50, name: 'Pass', message: '' }
		]);
		expect(readBands('Merit from eighty')).toEqual(['Merit from eighty']);
		expect(bandsAsText(['Merit from eighty'])).toBe('Merit from eighty');
	});

	it('that make no sense are refused with what would work', () => {
		const setting = SETTINGS.find((one) => one.path === 'result.bands')!;
		expect(faultOf(setting, BANDS)).toBeNull();
		expect(faultOf(setting, readBands('Merit from eighty'))).toMatch(
			/“Merit from eighty” can’t be read. Write a line like/
		);
		expect(faultOf(setting, readBands('120 Beyond'))).toMatch(/can’t be read/);
		expect(faultOf(setting, readBands('50 Pass\n50 Sound'))).toMatch(/two begin at the same mark/);
	});
});
