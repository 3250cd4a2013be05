import { describe, expect, it } from 'vitest';
import {
	clockTime,
	instantFromLocal,
	localDate,
	localMidnightAfter,
	localTime,
	longDate,
	timeAndDate,
	timeElsewhere,
	zoneName
} from '.';

/** The platform's own zone data (IANA by way of Intl), read apart from the library under test. */
function byIntl(at: number, zone: string) {
	const parts = new Intl.DateTimeFormat('en-CA', {
		timeZone: zone,
		hourCycle: 'h23',
		year: 'numeric',
		month: '2-digit',
		day: '2-digit',
		hour: '2-digit',
		minute: '2-digit'
	}).formatToParts(at);
	const get = (type: string) => parts.find((part) => part.type === type)!.value;
	return { date: `${get('year')}-${get('month')}-${get('day')}`, time: `${get('hour')}:${get('minute')}` };
}

const ZONES = [
	'Europe/London',
	'Atlantic/Azores',
	'America/New_York',
	'Australia/Lord_Howe',
	'Asia/Kolkata',
	'Pacific/Chatham'
];
/** Days on which clocks change in some of these zones, and one on which none do. */
const DAYS = [
	'2026-03-08',
	'2026-03-29',
	'2026-04-05',
	'2026-09-27',
	'2026-10-04',
	'2026-10-25',
	'2026-11-01',
	'2026-12-08'
];

describe('local times against Intl', () => {
	it.each(ZONES)('%s: every quarter of an hour of each day reads back as it was typed, or is asked about', (zone) => {
		let asked = 0;
		for (const date of DAYS) {
			for (let quarter = 0; quarter < 96; quarter++) {
				const time = `${String(Math.floor(quarter / 4)).padStart(2, '0')}:${String((quarter % 4) * 15).padStart(2, '0')}`;
				const read = instantFromLocal(date, time, zone);
				if (read.ok) expect(byIntl(read.at, zone)).toEqual({ date, time });
				else if (read.why === 'exists_twice') {
					asked++;
					expect(read.choices[0]).toBeLessThan(read.choices[1]);
					for (const choice of read.choices) expect(byIntl(choice, zone)).toEqual({ date, time });
				} else {
					asked++;
					expect(read.why).toBe('does_not_exist');
				}
			}
		}
		expect(asked > 0).toBe(zone !== 'Asia/Kolkata');
	});

	it('offers the first instant after the jump for a time that does not exist', () => {
		// London goes from 01:00 GMT to 02:00 BST on 29 March 2026, Lord Howe by half an hour on 4 October.
		expect(instantFromLocal('2026-03-29', '01:30', 'Europe/London')).toEqual({
			ok: false,
			why: 'does_not_exist',
			instead: Date.parse('2026-03-29T01:00:00Z')
		});
		const lordHowe = instantFromLocal('2026-10-04', '02:15', 'Australia/Lord_Howe');
		expect(lordHowe).toMatchObject({ why: 'does_not_exist', instead: Date.parse('2026-10-03T15:30:00Z') });
	});

	it('does not read what is not a date', () => {
		expect(instantFromLocal('2026-02-30', '09:00', 'Europe/London')).toEqual({ ok: false, why: 'unreadable' });
		expect(instantFromLocal('2026-02-03', '25:00', 'Europe/London')).toEqual({ ok: false, why: 'unreadable' });
	});

	it('a local day ends at its own midnight, also when it has 23 or 25 hours', () => {
		for (const [date, hours] of [
			['2026-03-29', 23],
			['2026-10-25', 25],
			['2026-12-08', 24]
		] as const) {
			const start = instantFromLocal(date, '00:00', 'Europe/London');
			if (!start.ok) throw new Error('midnight exists');
			expect(localMidnightAfter(start.at, 'Europe/London') - start.at).toBe(hours * 3_600_000);
		}
	});
});

describe('times in words', () => {
	const nine = Date.parse('2026-12-08T09:05:30Z');
	it('are told in the zone, with the date when it is another day', () => {
		expect(localTime(nine, 'Atlantic/Azores')).toBe('08:05');
		expect(clockTime(nine, 'Europe/London', true)).toBe('09:05:30');
		expect(localDate(nine, 'Pacific/Chatham')).toBe('2026-12-08');
		expect(longDate(nine, 'Europe/London')).toBe('Tuesday 8 December');
		expect(longDate(nine, 'Europe/London', Date.parse('2027-01-04T00:00:00Z'))).toBe('Tuesday 8 December 2026');
		expect(timeAndDate(nine, 'Europe/London', nine)).toBe('09:05');
		expect(timeAndDate(nine, 'Europe/London', nine + 86_400_000)).toBe('8 Dec 09:05');
		expect(zoneName(nine, 'Europe/London')).toBe('GMT');
		expect(zoneName(nine, 'Atlantic/Azores')).toBe('GMT-1');
	});
});

describe('the same instant on another clock', () => {
	const at = Date.parse('2026-12-09T23:30:00Z');
	it('is told where it says something else, with its day where that is another', () => {
		expect(timeElsewhere(at, 'Europe/London', 'Europe/Lisbon')).toBeNull();
		expect(timeElsewhere(at, 'Europe/London', 'Atlantic/Azores')).toBe('22:30');
		expect(timeElsewhere(at, 'Europe/London', 'Europe/Berlin')).toBe('Thursday 10 December, 00:30');
	});
});
