import ICAL from 'ical.js';
import { zipSync } from 'fflate';
import { describe, expect, it } from 'vitest';
import {
	isFormula,
	readArchive,
	readCalendar,
	readNeedsProfile,
	readTable,
	readText,
	writeCalendar,
	writeNeedsProfile
} from '.';

const bytes = (text: string) => new TextEncoder().encode(text);
const utc = (text: string) => Date.parse(`${text}Z`);

describe('text, as offices save it', () => {
	it.each<[string, Uint8Array]>([
		['UTF-8', bytes('Zoë')],
		['UTF-8 with a byte-order mark', new Uint8Array([0xef, 0xbb, 0xbf, ...bytes('Zoë')])],
		['UTF-16, little end first', new Uint8Array([0xff, 0xfe, 0x5a, 0, 0x6f, 0, 0xeb, 0])],
		['UTF-16, big end first', new Uint8Array([0xfe, 0xff, 0, 0x5a, 0, 0x6f, 0, 0xeb])]
	])('%s', (_, file) => expect(readText(file)).toEqual({ ok: true, text: 'Zoë', note: null }));

	it('Windows-1252 is read and said', () => {
		const read = readText(new Uint8Array([0x5a, 0x6f, 0xeb]));
		expect(read).toMatchObject({ ok: true, text: 'Zoë', note: expect.stringMatching(/Windows-1252/) });
	});

	it('a picture is no text', () => expect(readText(new Uint8Array([0x89, 0x50, 0, 0]))).toMatchObject({ ok: false }));
});

describe('comma-separated values', () => {
	// RFC 4180, section 2, rules 1 to 7, with its own examples.
	it.each([
		[
			'1 and 3',
			'a,b,c\r\naaa,bbb,ccc\r\nzzz,yyy,xxx\r\n',
			[
				['aaa', 'bbb', 'ccc'],
				['zzz', 'yyy', 'xxx']
			]
		],
		['2, no last line break', 'a,b,c\r\nzzz,yyy,xxx', [['zzz', 'yyy', 'xxx']]],
		['5, quoted', 'a,b,c\r\n"aaa","bbb","ccc"', [['aaa', 'bbb', 'ccc']]],
		['6, a line break inside', 'a,b,c\r\n"aaa","b\r\nbb","ccc"', [['aaa', 'b\r\nbb', 'ccc']]],
		['7, a quotation mark inside', 'a,b,c\r\n"aaa","b""bb","ccc"', [['aaa', 'b"bb', 'ccc']]]
	])('rule %s', (_, text, rows) => {
		const table = readTable(text);
		expect(table.header).toEqual(['a', 'b', 'c']);
		expect(table.rows.map((row) => row.cells)).toEqual(rows);
	});

	it.each([';', '\t', '|'])('the separator %j is noticed', (separator) => {
		const table = readTable(`a${separator}"b, c"\n1${separator}2`);
		expect(table).toMatchObject({ separator, header: ['a', 'b, c'], rows: [{ line: 2, cells: ['1', '2'] }] });
	});

	it('a row that is too wide names its line and what to do; the others are read', () => {
		const table = readTable('a,b\n1,2\n3,4,5\n6\n\n7,8');
		expect(table.rows.map((row) => [row.line, ...row.cells])).toEqual([
			[2, '1', '2'],
			[4, '6', ''],
			[6, '7', '8']
		]);
		expect(table.problems).toEqual([
			{ line: 3, field: null, message: expect.stringMatching(/3 values, the heading 2/) }
		]);
	});

	it('an open quotation mark is a problem, not an exception', () => {
		expect(readTable('a,b\n"1,2\n3,4').problems[0].message).toMatch(/quotation mark/);
	});

	it('formulas are told from signed numbers', () => {
		expect(['=1+1', '@SUM(A1)', '+cmd|x', '-2+3'].every(isFormula)).toBe(true);
		expect(['-2', '+44 20', '3', 'Ann-Marie'].some(isFormula)).toBe(false);
	});
});

describe('archives', () => {
	it('gives files without their folders', () => {
		const read = readArchive(zipSync({ 'export/users.csv': bytes('a'), 'orgs.csv': bytes('b') }));
		expect(read.ok && [...read.files.keys()].sort()).toEqual(['orgs.csv', 'users.csv']);
	});

	it('refuses what would unpack to far more than it is', () => {
		const bomb = zipSync({ 'a.csv': new Uint8Array(8 * 1024 * 1024) }, { level: 9 });
		expect(bomb.length).toBeLessThan(16_384);
		expect(readArchive(bomb)).toMatchObject({
			ok: false,
			message: expect.stringMatching(/a\.csv unpacks to more than 200 times/)
		});
		const many = zipSync(Object.fromEntries(Array.from({ length: 5 }, (_, i) => [`${i}`, bytes('x')])));
		expect(readArchive(many, { files: 4, bytes: 1e6, ratio: 100 })).toMatchObject({ ok: false });
	});

	it('says so when it is cut off', () => {
		expect(readArchive(zipSync({ a: bytes('abc') }).slice(0, 30))).toMatchObject({
			ok: false,
			message: /can’t be opened/
		});
	});
});

describe('needs profiles (AfA PNP 3.0; element names from memory)', () => {
	const profile = (inside: string) =>
		`<?xml version="1.0"?><p:access-for-all-pnp xmlns:p="http://www.imsglobal.org/xsd/qti/qtiv3p0/imsafa3p0pnp_v1p0">${inside}</p:access-for-all-pnp>`;
	const timed = (inside: string) => profile(`<p:additional-testing-time>${inside}</p:additional-testing-time>`);

	it.each([
		['a multiplier', timed('<p:time-multiplier>1.5</p:time-multiplier>'), { factor: 1.5 }],
		['minutes', timed('<p:fixed-minutes>25</p:fixed-minutes>'), { minutes: 25 }],
		['no limit', timed('<p:unlimited/>'), { unlimited: true }],
		[
			'magnification, contrast, language',
			profile(
				'<p:language-of-interface xml:lang="pt"/><p:magnification><p:zoom-amount>2.0</p:zoom-amount></p:magnification><p:invert-display-polarity/>'
			),
			{ magnification: 2, contrast: true, language: 'pt' }
		],
		[
			'nothing',
			profile(''),
			{ factor: 1, minutes: 0, unlimited: false, magnification: null, contrast: false, language: null }
		]
	])('%s', (_, xml, wanted) => expect(readNeedsProfile(xml)).toMatchObject({ ok: true, profile: wanted }));

	it('what is written is read back', () => {
		const all = { factor: 1.25, minutes: 10, unlimited: true, magnification: 1.5, contrast: true, language: 'pt-PT' };
		expect(readNeedsProfile(writeNeedsProfile(all))).toEqual({ ok: true, profile: all });
	});

	it.each([
		[
			'entities that swell',
			'<!DOCTYPE x [<!ENTITY a "aaaa"><!ENTITY b "&a;&a;">]><access-for-all-pnp>&b;</access-for-all-pnp>'
		],
		['a file from outside', '<!DOCTYPE x SYSTEM "file:///etc/passwd"><access-for-all-pnp/>'],
		['another document', '<html/>'],
		['broken XML', '<access-for-all-pnp>'],
		['an impossible multiplier', timed('<p:time-multiplier>0.5</p:time-multiplier>')],
		['words for numbers', timed('<p:fixed-minutes>many</p:fixed-minutes>')]
	])('refuses %s', (_, xml) => expect(readNeedsProfile(xml)).toMatchObject({ ok: false }));
});

describe('timetables (RFC 5545)', () => {
	const calendar = (...events: string[]) =>
		[
			'BEGIN:VCALENDAR',
			'VERSION:2.0',
			'PRODID:-//x//y//EN',
			...events.flatMap((event) => ['BEGIN:VEVENT', event, 'END:VEVENT']),
			'END:VCALENDAR'
		].join('\r\n');
	const read = (text: string, from = '2026-12-01T00:00:00', to = '2026-12-31T00:00:00') => {
		const result = readCalendar(text, 'Europe/London', utc(from), utc(to));
		if (!result.ok) throw new Error(result.message);
		return result.busy.map(
			(busy) => `${new Date(busy.from).toISOString().slice(0, 16)} ${(busy.to - busy.from) / 60_000} ${busy.title}`
		);
	};

	it('one file’s own zone does not change how the next file is read', () => {
		const odd = [
			'BEGIN:VTIMEZONE',
			'TZID:Europe/London',
			'BEGIN:STANDARD',
			'DTSTART:19700101T000000',
			'TZOFFSETFROM:+0500',
			'TZOFFSETTO:+0500',
			'TZNAME:ODD',
			'END:STANDARD',
			'END:VTIMEZONE'
		].join('\r\n');
		const file = (before: string) =>
			`BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:-//x//EN\r\n${before}BEGIN:VEVENT\r\nUID:x\r\nSUMMARY:Class\r\nDTSTART;TZID=Europe/London:20261208T110000\r\nDTEND;TZID=Europe/London:20261208T120000\r\nEND:VEVENT\r\nEND:VCALENDAR\r\n`;
		const start = (text: string) => {
			const read = readCalendar(text, 'Europe/London', utc('2026-12-01T00:00:00'), utc('2027-01-01T00:00:00'));
			return read.ok ? new Date(read.busy[0].from).toISOString() : read.message;
		};
		expect([start(file('')), start(file(`${odd}\r\n`)), start(file(''))]).toEqual([
			'2026-12-08T11:00:00.000Z',
			'2026-12-08T06:00:00.000Z',
			'2026-12-08T11:00:00.000Z'
		]);
	});

	it.each(['', 'BEGIN:VCALENDAR', 'BEGIN:VEVENT\r\nEND:VEVENT', 'a timetable'])('%j is no calendar', (text) => {
		expect(readCalendar(text, 'Europe/London', 0, 1)).toMatchObject({ ok: false });
	});

	it('in UTC, in a zone, and floating in the site’s', () => {
		const text = calendar(
			'UID:1\r\nSUMMARY:A\r\nDTSTART:20261208T090000Z\r\nDTEND:20261208T100000Z',
			'UID:2\r\nSUMMARY:B\r\nDTSTART;TZID=Atlantic/Azores:20261208T090000\r\nDURATION:PT45M',
			'UID:3\r\nSUMMARY:C\r\nDTSTART:20261208T110000\r\nDTEND:20261208T120000'
		);
		expect(read(text)).toEqual(['2026-12-08T09:00 60 A', '2026-12-08T10:00 45 B', '2026-12-08T11:00 60 C']);
	});

	it('repeated lessons, with the exception and the moved one', () => {
		const text = calendar(
			'UID:1\r\nSUMMARY:Chartwork\r\nDTSTART;TZID=Europe/London:20261201T100000\r\nDTEND;TZID=Europe/London:20261201T110000\r\nRRULE:FREQ=WEEKLY;COUNT=4\r\nEXDATE;TZID=Europe/London:20261208T100000',
			'UID:1\r\nSUMMARY:Chartwork moved\r\nRECURRENCE-ID;TZID=Europe/London:20261215T100000\r\nDTSTART;TZID=Europe/London:20261215T140000\r\nDTEND;TZID=Europe/London:20261215T150000'
		);
		expect(read(text)).toEqual([
			'2026-12-01T10:00 60 Chartwork',
			'2026-12-15T14:00 60 Chartwork moved',
			'2026-12-22T10:00 60 Chartwork'
		]);
	});

	it('keeps its hour over the end of summer time', () => {
		const text = calendar(
			'UID:1\r\nSUMMARY:A\r\nDTSTART;TZID=Europe/London:20261021T100000\r\nDTEND;TZID=Europe/London:20261021T110000\r\nRRULE:FREQ=WEEKLY;COUNT=2'
		);
		expect(read(text, '2026-10-01T00:00:00')).toEqual(['2026-10-21T09:00 60 A', '2026-10-28T10:00 60 A']);
	});

	it('free and cancelled entries take no time; an endless series ends with the stretch asked for', () => {
		const text = calendar(
			'UID:1\r\nDTSTART:20261208T090000Z\r\nDTEND:20261208T100000Z\r\nTRANSP:TRANSPARENT',
			'UID:2\r\nDTSTART:20261208T090000Z\r\nDTEND:20261208T100000Z\r\nSTATUS:CANCELLED',
			'UID:3\r\nSUMMARY:Daily\r\nDTSTART:20261229T080000Z\r\nDTEND:20261229T083000Z\r\nRRULE:FREQ=DAILY'
		);
		expect(read(text)).toHaveLength(2);
	});

	it('lessons left out in another zone, dates without a rule, a moved one without its series, a zone by another system’s name', () => {
		const text = calendar(
			'UID:1\r\nSUMMARY:A\r\nDTSTART;TZID=Europe/London:20261201T100000\r\nDTEND;TZID=Europe/London:20261201T110000\r\nRRULE:FREQ=WEEKLY;COUNT=3\r\nEXDATE:20261208T100000Z',
			'UID:2\r\nSUMMARY:B\r\nDTSTART:20261202T090000Z\r\nDTEND:20261202T094500Z\r\nRDATE:20261203T090000Z,20261204T090000Z',
			'UID:3\r\nSUMMARY:C\r\nRECURRENCE-ID:20261210T090000Z\r\nDTSTART:20261210T130000Z\r\nDTEND:20261210T140000Z',
			'UID:4\r\nSUMMARY:D\r\nDTSTART;TZID=Tokyo Standard Time:20261211T180000\r\nDTEND;TZID=Tokyo Standard Time:20261211T190000'
		);
		expect(read(text)).toEqual([
			'2026-12-01T10:00 60 A',
			'2026-12-02T09:00 45 B',
			'2026-12-03T09:00 45 B',
			'2026-12-04T09:00 45 B',
			'2026-12-10T13:00 60 C',
			'2026-12-11T09:00 60 D',
			'2026-12-15T10:00 60 A'
		]);
	});

	it('a lesson in the hour that the clocks jump over lasts as long as it does', () => {
		const text = calendar(
			'UID:1\r\nSUMMARY:A\r\nDTSTART;TZID=Europe/London:20270328T013000\r\nDTEND;TZID=Europe/London:20270328T020000'
		);
		const result = readCalendar(text, 'Europe/London', utc('2027-03-01T00:00:00'), utc('2027-04-01T00:00:00'));
		expect(result.ok && result.busy.map(({ from, to }) => (to - from) / 60_000)).toEqual([30]);
	});

	it('each fault is told with its event, and the others are read; two calendars in a file are two', () => {
		const good = 'UID:9\r\nSUMMARY:Good\r\nDTSTART:20261208T090000Z\r\nDTEND:20261208T100000Z';
		const text = calendar(
			'UID:1\r\nSUMMARY:Feb\r\nDTSTART:20260231T090000Z\r\nDTEND:20260231T100000Z',
			'UID:2\r\nSUMMARY:Words\r\nDTSTART:2027-01-01 10:00\r\nDTEND:20270101T110000Z',
			'UID:3\r\nSUMMARY:Long\r\nDTSTART:20261208T090000Z\r\nDURATION:1 hour',
			'UID:4\r\nSUMMARY:Rule\r\nDTSTART:20261208T090000Z\r\nDTEND:20261208T100000Z\r\nRRULE:FREQ=OFTEN',
			'UID:5\r\nSUMMARY:Zone\r\nDTSTART;TZID=Nowhere:20261209T090000\r\nDTEND;TZID=Nowhere:20261209T100000',
			good
		);
		const result = readCalendar(
			`${text}\r\n${calendar(good.replace('Good', 'Second').replaceAll('08T', '10T'))}`,
			'Europe/London',
			utc('2026-12-01T00:00:00'),
			utc('2026-12-31T00:00:00')
		);
		expect(result).toMatchObject({
			ok: true,
			skipped: [
				'“Feb” is on a day or at a time that does not exist: 20260231T090000Z',
				'“Words” has a time that can’t be read: 2027-01-01 10:00',
				'“Long” has a length that can’t be read: 1 hour',
				'“Rule” can’t be read',
				'the time zone “Nowhere” is not known, and was read as Europe/London'
			]
		});
		expect(result.ok && result.busy.map(({ title }) => title)).toEqual(['Good', 'Zone', 'Second']);
	});

	it('a file without an event takes nothing’s place', () =>
		expect(readCalendar(calendar(), 'Europe/London', 0, 1)).toMatchObject({ ok: false, message: /no event/ }));

	it('something else is refused with what would work', () => {
		expect(readCalendar('hello', 'Europe/London', 0, 1)).toMatchObject({ ok: false, message: /iCalendar/ });
	});

	it('sessions written are read back by ical.js', () => {
		const text = writeCalendar(
			'Otium',
			[
				{
					id: 's1',
					title: 'Tides, and Currents; A',
					from: utc('2026-12-08T09:00:00'),
					to: utc('2026-12-08T10:15:00'),
					place: 'Chart Room',
					description: 'Line one\nLine two'
				}
			],
			utc('2026-12-01T08:00:00')
		);
		const event = new ICAL.Event(new ICAL.Component(ICAL.parse(text) as never).getFirstSubcomponent('vevent')!);
		expect(event).toMatchObject({
			uid: 's1@otium',
			summary: 'Tides, and Currents; A',
			location: 'Chart Room',
			description: 'Line one\nLine two'
		});
		expect(event.startDate.toJSDate().getTime()).toBe(utc('2026-12-08T09:00:00'));
		expect(event.endDate.toJSDate().getTime()).toBe(utc('2026-12-08T10:15:00'));
		expect(text.split('\r\n').every((line) => bytes(line).length <= 75)).toBe(true);
	});
});
