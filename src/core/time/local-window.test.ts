import { describe, expect, it } from 'vitest';
import {
	addDays,
	asLocalWindow,
	daysBetween,
	isOverDays,
	lastDayEnds,
	openUntil,
	reachesInto,
	readLocalWindow,
	type LocalWindow
} from '.';

const LONDON = 'Europe/London';
const at = (text: string) => Date.parse(text);
const entered = (change: Partial<LocalWindow> = {}): LocalWindow => ({
	date: '2026-11-30',
	opens: '09:00',
	closes: '17:00',
	lastDate: '2026-12-04',
	...change
});

describe('a window as it is entered', () => {
	it('goes over days, and over midnight, and back into its fields', () => {
		const read = readLocalWindow(entered(), LONDON);
		expect(read).toEqual({
			ok: true,
			window: { opens: at('2026-11-30T09:00Z'), closes: at('2026-12-04T17:00Z') }
		});
		expect(read.ok && asLocalWindow(read.window, LONDON)).toEqual(entered());
		const night = entered({ opens: '22:00', closes: '02:00', lastDate: '2026-12-01' });
		const late = readLocalWindow(night, LONDON);
		expect(late.ok && late.window.closes! - late.window.opens).toBe(4 * 3_600_000);
		expect(late.ok && asLocalWindow(late.window, LONDON)).toEqual(night);
	});

	it('keeps the local time where the clocks change in between: 25 October 2026 has 25 hours in London', () => {
		const read = readLocalWindow(entered({ date: '2026-10-24', lastDate: '2026-10-26' }), LONDON);
		expect(read.ok && read.window).toEqual({ opens: at('2026-10-24T08:00Z'), closes: at('2026-10-26T17:00Z') });
	});

	it('asks about a time that comes twice, or never, at the end as well as at the beginning', () => {
		const twice = readLocalWindow(entered({ date: '2026-10-24', closes: '01:30', lastDate: '2026-10-25' }), LONDON);
		expect(twice).toMatchObject({ ok: false, at: 'closes', instead: 'Choose a time outside that hour.' });
		const never = readLocalWindow(entered({ date: '2026-03-29', opens: '01:30', lastDate: null }), LONDON);
		expect(never).toMatchObject({ ok: false, at: 'opens' });
		expect(!never.ok && never.message).toContain('The next time there is 02:00');
	});

	it('tells how long it is open with day, time and zone', () => {
		expect(openUntil(at('2026-12-04T17:00Z'), LONDON)).toBe('open until Friday 4 December, 17:00 GMT');
	});
});

describe('the days of a window', () => {
	const window = { opens: at('2026-11-30T09:00Z'), closes: at('2026-12-04T17:00Z') };
	it('are those it touches; midnight sharp is the end of a day and no day more', () => {
		expect(isOverDays(window, LONDON)).toBe(true);
		expect(isOverDays({ opens: window.opens, closes: at('2026-12-01T00:00Z') }, LONDON)).toBe(false);
		expect(isOverDays({ opens: window.opens, closes: at('2026-12-01T00:01Z') }, LONDON)).toBe(true);
		expect(isOverDays({ opens: window.opens, closes: null }, LONDON)).toBe(false);
		expect(lastDayEnds(window, LONDON)).toBe(at('2026-12-05T00:00Z'));
		const days = ['2026-11-29', '2026-11-30', '2026-12-02', '2026-12-04', '2026-12-05'];
		expect(days.map((day) => reachesInto(window, day, LONDON))).toEqual([false, true, true, true, false]);
	});

	it('are counted on the calendar, not in hours', () => {
		expect(addDays('2026-10-24', 2)).toBe('2026-10-26');
		expect(daysBetween('2026-03-28', '2026-03-30')).toBe(2);
		expect(addDays('2026-12-31', 1)).toBe('2027-01-01');
	});
});
