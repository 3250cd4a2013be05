import { unzipSync } from 'fflate';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import type { StaffMember } from '$core/access';
import { asItSeems, type ImportAsked } from '$core/people';
import { loadSitting } from '../sitting';
import { buildHouse, COORDINATOR, NINE, type House } from '../testing/house';
import {
	applyImport,
	changePerson,
	checkImport,
	findPeople,
	findPerson,
	importTimetable,
	knownPeople,
	peopleCsv,
	peopleNeeds,
	peopleOneRoster
} from '.';

let house: House;
beforeEach(async () => (house = await buildHouse()));
afterEach(() => house.close());

const ODE: StaffMember = { id: 'ode', name: 'Maren Ode', roles: [{ role: 'coordinator', siteId: null }] };
const asked = (change: Partial<ImportAsked> = {}): ImportAsked => ({
	...asItSeems('quayside'),
	...change
});
const bytes = (text: string) => new TextEncoder().encode(text);
const check = async (file: Uint8Array, wishes = asked(), name = 'people.csv') => {
	const result = await checkImport(house.otium, name, file, wishes);
	if (!result.ok) throw new Error(result.refused.message);
	return result.checked;
};
const apply = async (file: Uint8Array, wishes = asked(), name = 'people.csv') =>
	applyImport(house.otium, COORDINATOR, name, file, wishes, (await check(file, wishes, name)).seal);
const people = () =>
	findPeople(house.otium.db, ODE, { text: '', groupId: null, siteId: null, withLeft: false, page: 0 });
/** Everything that an import could have touched. */
const everything = async () =>
	JSON.stringify(
		await Promise.all(
			['candidate', 'candidate_group', 'group_member', 'grant_given', 'logbook'].map((table) => house.otium.db(table))
		)
	);

describe('an import', () => {
	it('adds and changes, says so in the logbook, and changes nothing the second time', async () => {
		const file = bytes(
			'number,given,family,group,factor\nDO-1001,Given0,Family0,Watch A,1.5\nDO-2001,Zoë,Ó Briain,Watch A,'
		);
		const first = await check(file);
		expect([first.plan.add.length, first.plan.change.length, first.plan.missing.length]).toEqual([1, 1, 2]);
		const told: number[] = [];
		const done = await applyImport(
			house.otium,
			COORDINATOR,
			'people.csv',
			file,
			asked(),
			first.seal,
			(n) => void told.push(n)
		);
		expect(done).toEqual({ ok: true, applied: { added: 1, changed: 1, left: 0 } });
		expect(told).toEqual([1, 2]);
		expect(await house.otium.db('logbook').where({ kind: 'people_imported' })).toHaveLength(1);
		const again = await check(file);
		expect([again.plan.add.length, again.plan.change.length, again.plan.same]).toEqual([0, 0, 2]);
	});

	it('gives standing extra time that holds at once, and takes another’s place without deleting it', async () => {
		await apply(bytes('number,given,family,factor\nDO-1001,Given0,Family0,1.5'));
		expect((await loadSitting(house.otium.db, 'sit0', NINE))!.reckoning.allotted).toBe(90 * 60_000);
		await apply(bytes('number,given,family,factor,minutes\nDO-1001,Given0,Family0,1.25,10'));
		expect((await loadSitting(house.otium.db, 'sit0', NINE))!.reckoning.allotted).toBe(85 * 60_000);
		expect(await house.otium.db('grant_given').whereNotNull('withdrawn_at')).toHaveLength(1);
	});

	it.each<[string, Uint8Array, RegExp]>([
		['a picture', new Uint8Array([0x89, 0x50, 0x4e, 0x47, 0, 0]), /not a text file/],
		['nothing', new Uint8Array(), /empty/],
		['a heading alone', bytes('number,given,family\n'), /no rows/],
		['columns that can’t be told', bytes('a,b,c\n1,2,3'), /Given name, Family name/],
		['a zip that is cut off', new Uint8Array([0x50, 0x4b, 3, 4, 9, 9]), /can’t be opened/],
		['XML of another kind', bytes('<html></html>'), /^$/]
	])('%s is refused, and the database is as before', async (_, file, message) => {
		const before = await everything();
		const result = await checkImport(house.otium, 'DO-1001.xml', file, asked());
		if (message.source === '^$') expect(result.ok && result.checked.plan.problems[0].message).toMatch(/not an AfA PNP/);
		else expect(!result.ok && result.refused.message).toMatch(message);
		expect(await everything()).toBe(before);
	});

	it('with one bad row imports nothing', async () => {
		const before = await everything();
		const file = bytes('number,given,family\nDO-3001,A,B\n=cmd(),C,D');
		expect((await check(file)).plan.problems).toMatchObject([{ line: 3 }]);
		expect(await apply(file)).toMatchObject({ ok: false });
		expect(await everything()).toBe(before);
	});

	it('is not done when people changed since it was looked at', async () => {
		const file = bytes('number,given,family\nDO-1001,Given0,Renamed');
		const { seal } = await check(file);
		await house.otium.db('candidate').where({ id: 'can0' }).update({ family: 'Renamed' });
		expect(await applyImport(house.otium, COORDINATOR, 'x', file, asked(), seal)).toMatchObject({
			ok: false,
			refused: { message: expect.stringMatching(/changed since/) }
		});
	});

	it('takes those who are not in it off the lists only when asked to, and keeps what they sat', async () => {
		const file = bytes('number,given,family,group\nDO-1001,Given0,Family0,Watch A');
		await apply(file, asked({ missing: 'leave' }));
		expect((await people()).people.map((person) => person.number)).toEqual(['DO-1001']);
		expect(await house.otium.db('sitting')).toHaveLength(3);
	});

	it('reads needs profiles by the names of their files', async () => {
		const xml = bytes(
			'<access-for-all-pnp><additional-testing-time><time-multiplier>2</time-multiplier></additional-testing-time><language-of-interface>pt</language-of-interface></access-for-all-pnp>'
		);
		await apply(xml, asked(), 'do-1002.xml');
		expect(await findPerson(house.otium.db, 'can1', NINE)).toMatchObject({
			language: 'pt',
			standing: [{ what: 'double time' }]
		});
		expect((await check(xml, asked(), 'DO-9999.xml')).plan.problems[0].message).toMatch(/No candidate has this number/);
	});
});

describe('an export', () => {
	it.each(['csv', 'one_roster'])('as %s comes back in without changing anything', async (format) => {
		await apply(
			bytes(
				'number,given,family,group,factor,minutes,email,birth\nDO-1001,Zoë,"Ó Briain, jr.",Watch A,1.5,5,z@sea.example,2007-05-31'
			)
		);
		const known = await knownPeople(house.otium.db, 'quayside');
		const file =
			format === 'csv'
				? bytes(peopleCsv(known))
				: peopleOneRoster({ id: 'quayside', name: 'Quayside' }, [{ id: 'watch', name: 'Watch A' }], known);
		const { plan } = await check(file);
		// OneRoster carries ids, which ours did not have before.
		const differences = plan.change.flatMap((change) => change.differences).filter((one) => !one.startsWith('id '));
		expect([plan.add, differences, plan.missing, plan.problems]).toEqual([[], [], [], []]);
	});

	it('of needs comes back in without changing anything, and a changed profile withdraws what the old one gave', async () => {
		const needs = (inside: string) => bytes(`<access-for-all-pnp>${inside}</access-for-all-pnp>`);
		const large =
			'<magnification><zoom-amount>1.5</zoom-amount></magnification><invert-display-polarity/><additional-testing-time><unlimited/></additional-testing-time>';
		await apply(needs(large), asked(), 'DO-1001.xml');
		const standing = async () => (await findPerson(house.otium.db, 'can0', NINE))!.standing.map((one) => one.what);
		expect(await standing()).toEqual(
			expect.arrayContaining([expect.stringMatching(/enlarged 1.5 times/), expect.stringMatching(/no .*limit/i)])
		);
		const sitting = await loadSitting(house.otium.db, 'sit0', NINE);
		expect(sitting!.merge.display).toMatchObject({ magnification: 1.5, contrast: true });
		expect(sitting!.reckoning.allotted).toBeNull();

		const files = unzipSync(peopleNeeds(await knownPeople(house.otium.db, 'quayside')));
		const { plan } = await check(files['DO-1001.xml'], asked(), 'DO-1001.xml');
		expect([plan.change, plan.problems]).toEqual([[], []]);

		await apply(needs('<magnification><zoom-amount>2</zoom-amount></magnification>'), asked(), 'DO-1001.xml');
		expect(await standing()).toEqual([expect.stringMatching(/enlarged 2 times/)]);
		const kept = await house.otium.db('grant_given').where({ candidate_id: 'can0' }).whereNotNull('withdrawn_at');
		expect(kept.map((grant) => grant.kind).sort()).toEqual(['display', 'unlimited_time']);
		const wide = await check(
			needs('<magnification><zoom-amount>40</zoom-amount></magnification>'),
			asked(),
			'DO-1001.xml'
		);
		expect(wide.plan.problems[0].message).toBe('A magnification of 40 is not between 1 and 10.');
	});

	it('of needs holds a profile for each who has some', async () => {
		await apply(bytes('number,given,family,factor\nDO-1001,Given0,Family0,1.5'));
		const files = unzipSync(peopleNeeds(await knownPeople(house.otium.db, 'quayside')));
		expect(Object.keys(files)).toEqual(['DO-1001.xml']);
	});
});

describe('people', () => {
	it('are found by any part of name, number or group, a page at a time', async () => {
		const find = async (text: string) =>
			(
				await findPeople(house.otium.db, ODE, { text, groupId: null, siteId: null, withLeft: false, page: 0 })
			).people.map((person) => person.number);
		expect(await find('amily1')).toEqual(['DO-1002']);
		expect(await find('given watch 1003')).toEqual(['DO-1003']);
		expect(await find('%')).toEqual([]);
		const elsewhere: StaffMember = { ...ODE, roles: [{ role: 'coordinator', siteId: 'lighthouse' }] };
		expect(
			(await findPeople(house.otium.db, elsewhere, { text: '', groupId: null, siteId: null, withLeft: false, page: 0 }))
				.total
		).toBe(0);
	});

	it('a number that is another’s is refused with their name', async () => {
		const change = {
			number: 'do 1002',
			given: 'A',
			family: 'B',
			email: null,
			birth: null,
			language: null,
			grade: null,
			userName: null,
			elsewhere: false,
			groupIds: ['watch'],
			left: false
		};
		expect(await changePerson(house.otium, COORDINATOR, 'can0', change)).toMatchObject({
			ok: false,
			field: 'number',
			message: expect.stringMatching(/Given1 Family1’s/)
		});
		expect(
			await changePerson(house.otium, COORDINATOR, 'can0', { ...change, number: 'DO-7', groupIds: [] })
		).toMatchObject({ ok: false, field: 'groupIds' });
		expect(await changePerson(house.otium, COORDINATOR, 'can0', { ...change, number: 'DO-7' })).toEqual({ ok: true });
	});

	it('a timetable takes the place of the one before', async () => {
		const calendar = (hour: string) =>
			`BEGIN:VCALENDAR\r\nVERSION:2.0\r\nPRODID:x\r\nBEGIN:VEVENT\r\nUID:1\r\nSUMMARY:Chartwork\r\nDTSTART:20261208T${hour}0000Z\r\nDURATION:PT1H\r\nEND:VEVENT\r\nEND:VCALENDAR`;
		await importTimetable(house.otium, COORDINATOR, ['can0', 'can1'], calendar('10'), 'Europe/London');
		await importTimetable(house.otium, COORDINATOR, ['can0'], calendar('13'), 'Europe/London');
		const rows = await house.otium.db('commitment').orderBy('from_at').select('candidate_id', 'title');
		expect(rows).toEqual([
			{ candidate_id: 'can1', title: 'Chartwork' },
			{ candidate_id: 'can0', title: 'Chartwork' }
		]);
		expect(await importTimetable(house.otium, COORDINATOR, ['can0'], 'hello', 'Europe/London')).toMatchObject({
			ok: false
		});
	});
});
