import { zipSync } from 'fflate';
import fc from 'fast-check';
import { afterAll, beforeAll, describe, expect, it } from 'vitest';
import { asItSeems } from '$core/people';
import { buildHouse, COORDINATOR, type House } from '../testing/house';
import { checkImport, importTimetable } from '.';
import { runs } from '$core/testing/runs';

let house: House;
beforeAll(async () => (house = await buildHouse()));
afterAll(() => house.close());

const ASKED = asItSeems('quayside');
const bytes = (text: string) => new TextEncoder().encode(text);
const calendar = (...rules: string[]) =>
	[
		'BEGIN:VCALENDAR',
		'VERSION:2.0',
		'PRODID:x',
		...rules.flatMap((rule, i) => [
			'BEGIN:VEVENT',
			`UID:${i}`,
			'DTSTART:19700101T000000Z',
			'DURATION:PT1S',
			`RRULE:${rule}`,
			'END:VEVENT'
		]),
		'END:VCALENDAR'
	].join('\r\n');
/** How long the event loop was kept from anything else at the most, ms, while something was being done. */
async function longestPause<T>(work: () => Promise<T>): Promise<{ done: T; pauseMs: number }> {
	let [last, pauseMs] = [performance.now(), 0];
	const timer = setInterval(() => {
		pauseMs = Math.max(pauseMs, performance.now() - last - 5);
		last = performance.now();
	}, 5);
	const done = await work();
	clearInterval(timer);
	return { done, pauseMs };
}
const sent = (file: Uint8Array, name = 'people.csv') =>
	longestPause(async () => {
		const result = await checkImport(house.otium, name, file, ASKED);
		return result.ok ? 'taken' : result.refused.message;
	});
const timetable = (text: string) =>
	longestPause(async () => {
		const result = await importTimetable(house.otium, COORDINATOR, ['can0'], text, 'Europe/London');
		return result.ok ? 'taken' : result.message;
	});

/** A hundred times less than what these files once took from everybody, and more than a busy machine takes from a test. */
const NOBODY_WAITS_MS = 10_000;

describe('a file that was made to stop the house is refused in words, and nobody waits for it', () => {
	it('a day that no year has, asked for again and again', async () => {
		const { done, pauseMs } = await timetable(calendar('FREQ=DAILY;BYMONTH=2;BYMONTHDAY=31'));
		expect(done).toMatch(/takes too long/);
		expect(pauseMs).toBeLessThan(NOBODY_WAITS_MS);
		expect((await timetable(calendar('FREQ=WEEKLY;COUNT=3'))).done).toBe('taken');
	});

	it.each([
		['every second since 1970', calendar('FREQ=SECONDLY'), /every hour or more often/],
		['every minute', calendar('FREQ=WEEKLY', 'FREQ=MINUTELY'), /every hour or more often/],
		['twenty lives of days', calendar(...Array.from({ length: 20 }, () => 'FREQ=DAILY')), /too often|too long/]
	])('events that come back %s', async (_, text, words) => {
		const { done, pauseMs } = await timetable(text);
		expect(done).toMatch(words);
		expect(pauseMs).toBeLessThan(NOBODY_WAITS_MS);
	});

	it.each([
		[
			'a heading of 20,000 columns over 20,000 short rows',
			`${'a,'.repeat(20_000)}\n${'b\n'.repeat(20_000)}`,
			// Beside much other work the time that a reading may take is over first.
			/columns|too long/
		],
		['500 columns over 100,000 rows', `${'a,'.repeat(499)}a\n${'b\n'.repeat(100_000)}`, /Split it/],
		['an e-mail address of 200 kB', `number,given,family,email\nDO-1,Ann,Moor,${'a@'.repeat(100_000)}`, /^taken$/],
		['a quotation mark that is never closed', `number,given,family\n"${'x'.repeat(5_000_000)}`, /quotation mark/]
	])('%s', async (_, text, words) => {
		const { done, pauseMs } = await sent(bytes(text));
		expect(done).toMatch(words);
		expect(pauseMs).toBeLessThan(NOBODY_WAITS_MS);
	});

	it('an address that is far too long is one row’s problem', async () => {
		const result = await checkImport(
			house.otium,
			'people.csv',
			bytes(`number,given,family,email\nDO-1,Ann,Moor,${'a@'.repeat(10_000)}`),
			ASKED
		);
		expect(result.ok && result.checked.plan.problems).toMatchObject([{ line: 2, field: 'E-mail' }]);
	});

	it('a cell without an end is one row’s problem, and nobody waits for it', async () => {
		const text = `number,given,family,email\nDO-1,Ann,"${'""'.repeat(4_000_000)}",x@x.example\nDO-2,Bo,Moor,y@x.example`;
		const { done, pauseMs } = await longestPause(() => checkImport(house.otium, 'people.csv', bytes(text), ASKED));
		expect(done.ok && done.checked.plan.problems[0]).toMatchObject({ line: 2, field: 'family' });
		expect(pauseMs).toBeLessThan(NOBODY_WAITS_MS);
	});

	it('an archive whose listing says a thousand bytes and that holds 100 MB', async () => {
		const bomb = zipSync({ 'users.csv': new Uint8Array(100 * 1024 * 1024) }, { level: 9 });
		// The size before packing stands in the local header at 22 and in the central one at 24 (APPNOTE, 4.3.7 and 4.3.12).
		const view = new DataView(bomb.buffer, bomb.byteOffset, bomb.byteLength);
		for (let at = 0; at + 4 <= bomb.length; at++) {
			if (view.getUint32(at, true) === 0x04034b50) view.setUint32(at + 22, 1_000, true);
			if (view.getUint32(at, true) === 0x02014b50) view.setUint32(at + 24, 1_000, true);
		}
		const { done, pauseMs } = await sent(bomb, 'roster.zip');
		expect(done).toMatch(/unpacks to more than/);
		expect(pauseMs).toBeLessThan(NOBODY_WAITS_MS);
	}, 60_000);

	it.each([
		['a thousand levels', `${'<a>'.repeat(1_000)}${'</a>'.repeat(1_000)}`],
		['a name that objects have', '<__proto__><a/></__proto__>'],
		['entities', '<!DOCTYPE x [<!ENTITY a "aaaaaaaaaa">]><x>&a;</x>']
	])('a profile of %s', async (_, xml) => {
		const result = await checkImport(house.otium, 'DO-1001.xml', bytes(xml), ASKED);
		expect(result.ok && result.checked.plan.problems.length).toBe(1);
	});

	it('random damage to files that were right ends in words or in a plan, never in a fault of ours', async () => {
		const right = [
			bytes('number,given,family,birth\nDO-2001,Zoë,Ó Briain,2007-05-31\nDO-2002,"Ann ""A""",Moor,31/05/2007'),
			zipSync({ 'orgs.csv': bytes('sourcedId,name,type\n1,Q,school'), 'users.csv': bytes('sourcedId,role') }),
			bytes('<access-for-all-pnp><language-of-interface>pt</language-of-interface></access-for-all-pnp>')
		];
		await fc.assert(
			fc.asyncProperty(
				fc.constantFrom(...right),
				fc.array(fc.tuple(fc.nat(), fc.integer({ min: 0, max: 255 })), { minLength: 1, maxLength: 12 }),
				fc.nat(),
				async (file, changes, cut) => {
					const damaged = file.slice(0, file.length - (cut % 3 === 0 ? cut % file.length : 0));
					for (const [at, value] of changes) if (damaged.length > 0) damaged[at % damaged.length] = value;
					const result = await checkImport(house.otium, 'DO-1001.xml', damaged, ASKED);
					expect(result.ok || result.refused.message.length > 10).toBe(true);
				}
			),
			{ numRuns: runs(150) }
		);
	});
});
