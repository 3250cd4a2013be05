import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fieldDate, readDate, readTime } from '.';

/** A Friday. */
const TODAY = '2026-11-27';

describe('a day as it is typed', () => {
	it.each([
		['2026-12-08', '2026-12-08'],
		['8/12/2026', '2026-12-08'],
		['08.12.2026', '2026-12-08'],
		['8/12', '2026-12-08'],
		['8.12.', '2026-12-08'],
		['8/12/26', '2026-12-08'],
		['8 Dec', '2026-12-08'],
		['8th December 2026', '2026-12-08'],
		['Tue 8 Dec 2026', '2026-12-08'],
		['Tuesday, 8 December', '2026-12-08'],
		['10 Jan', '2027-01-10'],
		['20 Nov', '2026-11-20'],
		['today', '2026-11-27'],
		['Tomorrow', '2026-11-28'],
		['tue', '2026-12-01'],
		['friday', '2026-12-04'],
		['29/2/2028', '2028-02-29']
	])('%s is %s', (text, date) => expect(readDate(text, TODAY)).toBe(date));

	it.each(['', '12/8/2026x', '31/2/2026', '8/13/2026', '29/2/2027', 'next week', '8', '2026', 'Dec'])(
		'"%s" is none',
		(text) => expect(readDate(text, TODAY)).toBeNull()
	);

	it('is read back from the way in which fields show it, whatever the day', () =>
		fc.assert(
			fc.property(
				fc.date({ min: new Date('1950-01-01'), max: new Date('2090-12-31'), noInvalidDate: true }),
				(date) => {
					const iso = date.toISOString().slice(0, 10);
					expect(readDate(fieldDate(iso), TODAY)).toBe(iso);
				}
			)
		));
});

describe('a time as it is typed', () => {
	it.each([
		['09:30', '09:30'],
		['9:30', '09:30'],
		['9.30', '09:30'],
		['930', '09:30'],
		['0930', '09:30'],
		['1345', '13:45'],
		['9', '09:00'],
		['9 am', '09:00'],
		['12 am', '00:00'],
		['12:15pm', '12:15'],
		['1:45 p.m.', '13:45'],
		['0:00', '00:00']
	])('%s is %s', (text, time) => expect(readTime(text)).toBe(time));

	it.each(['', '24:00', '9:60', '13 pm', '0 am', 'nine', '12345', '9:3'])('"%s" is none', (text) =>
		expect(readTime(text)).toBeNull()
	);
});
