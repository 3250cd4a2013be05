import { afterAll, describe, expect, it } from 'vitest';
import { clockTime, localTime, readTime, setHourStyle, shownTime } from '.';

afterAll(() => setHourStyle('24'));

describe('the house’s style of hours', () => {
	const minutes = Array.from({ length: 24 * 60 }, (_, i) => Date.UTC(2026, 11, 8, 0, i));
	const british = new Intl.DateTimeFormat('en-GB', {
		timeZone: 'UTC',
		hour: 'numeric',
		minute: '2-digit',
		hour12: true
	});

	it('of twelve hours is what Intl writes in British English, for each minute of a day, and reads back as it was kept', () => {
		setHourStyle('12');
		for (const at of minutes) {
			const shown = clockTime(at, 'UTC').replace('\u00a0', ' ');
			// CLDR writes half past midnight as 0:30 in places; a clock on a wall has twelve.
			expect(shown).toBe(british.format(at).replace(/^0:/, '12:'));
			expect(readTime(clockTime(at, 'UTC'))).toBe(localTime(at, 'UTC'));
		}
		expect(clockTime(Date.UTC(2026, 11, 8, 21, 5, 7), 'UTC', true)).toBe('9:05:07\u00a0pm');
	});

	it('is 24 hours otherwise, and what is kept never changes', () => {
		setHourStyle('12');
		expect(localTime(minutes[0], 'UTC')).toBe('00:00');
		for (const other of [undefined, '', '24', 'twelve']) {
			setHourStyle(other);
			expect(shownTime('21:30')).toBe('21:30');
		}
	});
});
