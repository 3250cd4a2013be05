import fc from 'fast-check';
import { DateTime, IANAZone } from 'luxon';
import { describe, expect, it } from 'vitest';
import {
	clockTime,
	instantFromLocal,
	localDate,
	localDay,
	localMidnightAfter,
	localTime,
	longDate,
	timeAndDate,
	timeElsewhere,
	wallClock,
	zoneBeside,
	zoneName
} from '.';
import { runs } from '$core/testing/runs';

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

	it('is told with its zone where the reader’s clock shows another time', () => {
		expect(zoneBeside(at, 'Atlantic/Azores', 'Europe/London')).toBe(' GMT-1');
		// Names of zones differ between the two; the time does not.
		expect(zoneBeside(at, 'Europe/Lisbon', 'Europe/London')).toBe('');
		expect(zoneBeside(Date.parse('2026-07-09T12:00:00Z'), 'Europe/London', 'UTC')).toBe(' BST');
	});
});

// From the IANA zone: clocks of the Azores go from 00:00 to 01:00 on 29 March 2026, so that the day has no midnight.
it('a day without a midnight begins at one and ends at the midnight after it', () => {
	const noon = Date.parse('2026-03-29T12:00:00Z');
	const [from, until] = [Date.parse('2026-03-29T01:00:00Z'), Date.parse('2026-03-30T00:00:00Z')];
	expect(localDay(noon, 'Atlantic/Azores')).toEqual({ from, until });
	expect(localMidnightAfter(noon, 'Atlantic/Azores')).toBe(until);
	expect(localDay(until - 1, 'Atlantic/Azores').until).toBe(until);
});

describe('a zone that remembers', () => {
	/** Of St John's the clocks changed at one minute past midnight until 2011; Lord Howe's change by half an hour. */
	const REMEMBERED = [...ZONES, 'America/St_Johns', 'Antarctica/Troll'];
	const from = Date.UTC(2005, 0, 1);
	const until = Date.UTC(2031, 0, 1);

	it('shows at every instant what luxon’s own zone shows, also the second time and beside a change of the clocks', () => {
		const changes = REMEMBERED.flatMap((zone) => changesOf(zone, from, until).map((at) => ({ zone, at })));
		expect(changes.length).toBeGreaterThan(200);
		const anywhere = fc.record({ zone: fc.constantFrom(...REMEMBERED), at: fc.integer({ min: from, max: until }) });
		const beside = fc
			.record({ change: fc.constantFrom(...changes), by: fc.integer({ min: -1_000_000, max: 1_000_000 }) })
			.map(({ change: { zone, at }, by }) => ({ zone, at: at + by }));
		fc.assert(
			fc.property(fc.oneof(anywhere, beside), ({ zone, at }) => {
				const shown = DateTime.fromMillis(at, { zone: IANAZone.create(zone) }).toISO();
				expect([wallClock(at, zone).toISO(), wallClock(at, zone).toISO()]).toEqual([shown, shown]);
			}),
			{ numRuns: runs(3_000) }
		);
	});

	it('what names no zone is invalid as before', () => {
		expect(wallClock(from, 'Saltmarsh/Quay').isValid).toBe(false);
	});
});

/** Instants at which a zone's clocks change, found by halving each day on which they do. */
function changesOf(zone: string, from: number, until: number): number[] {
	const offset = (at: number) => IANAZone.create(zone).offset(at);
	const day = 86_400_000;
	const found: number[] = [];
	for (let at = from; at < until; at += day) {
		if (offset(at) === offset(at + day)) continue;
		let [before, after] = [at, at + day];
		while (after - before > 1) {
			const middle = Math.floor((before + after) / 2);
			if (offset(middle) === offset(at)) before = middle;
			else after = middle;
		}
		found.push(after);
	}
	return found;
}
