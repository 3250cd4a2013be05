import { expect, it } from 'vitest';
import { DEFAULT_RULES, timesThatFollow } from '.';

const entered = (time: string, until: string | null, timing: Partial<typeof DEFAULT_RULES.timing> = {}) =>
	timesThatFollow({
		time,
		until,
		rules: {
			timing: {
				...DEFAULT_RULES.timing,
				limitMinutes: 90,
				doorOpensMinutes: 15,
				lastEntryMinutes: 30,
				atClose: 'cut',
				...timing
			}
		}
	});

it('tells the times that follow on the clock that was entered', () => {
	expect(entered('09:00', '12:00')).toEqual({ door: '08:45', lastEntry: '09:30', lastFullStart: '10:30' });
	expect(entered('09:00', null)).toEqual({ door: '08:45', lastEntry: '09:30', lastFullStart: null });
	expect(entered('09:00', '12:00', { lastEntryMinutes: null }).lastEntry).toBeNull();
	// Who may work beyond the close has the whole limit at any start.
	expect(entered('09:00', '12:00', { atClose: 'finish' }).lastFullStart).toBeNull();
	expect(entered('09:00', '12:00', { limitMinutes: null }).lastFullStart).toBeNull();
});

it('goes round midnight', () => {
	expect(entered('00:05', null).door).toBe('23:50');
	expect(entered('23:45', '00:30')).toMatchObject({ lastEntry: '00:15', lastFullStart: '23:00' });
});
