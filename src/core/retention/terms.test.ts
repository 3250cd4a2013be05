import { expect, it } from 'vitest';
import { closedBefore, keptUntil, termsFault } from '.';

it('counts calendar years, leap years included', () => {
	expect(keptUntil(Date.UTC(2026, 10, 28, 9), 2)).toBe(Date.UTC(2028, 10, 28, 9));
	expect(keptUntil(Date.UTC(2028, 1, 29), 1)).toBe(Date.UTC(2029, 2, 1));
	expect(closedBefore(Date.UTC(2028, 10, 28, 9), 2)).toBe(Date.UTC(2026, 10, 28, 9));
});

it('keeps the log for at least as long as the answers that it explains', () => {
	expect(termsFault({ answers: null, log: null })).toBeNull();
	expect(termsFault({ answers: 2, log: null })).toBeNull();
	expect(termsFault({ answers: 2, log: 2 })).toBeNull();
	expect(termsFault({ answers: 3, log: 2 })).toMatch(/at least as many/);
	expect(termsFault({ answers: null, log: 2 })).toMatch(/give the answers a time/);
});
