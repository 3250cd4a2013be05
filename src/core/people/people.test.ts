import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { readTable } from '../formats';
import { runs } from '../testing/runs';
import {
	guessMapping,
	isDateOrderOpen,
	checkDigit,
	madeNumber,
	missingColumns,
	pastedTable,
	ONE_ROSTER,
	planImport,
	readOneRoster,
	readPeople,
	splitName,
	withNumbers,
	writeOneRoster
} from '.';
import type { DateOrder, KnownPerson, NameOrder, PersonEntry } from '.';

const known = (change: Partial<KnownPerson> = {}): KnownPerson => ({
	id: 'c1',
	number: 'DO-1001',
	given: 'Adaeze',
	family: 'Obi',
	groups: ['Watch A'],
	email: null,
	birth: null,
	language: null,
	grade: null,
	userName: null,
	elsewhere: false,
	sourceId: null,
	extraTime: { factor: 1, minutes: 0 },
	separateRoom: false,
	unlimited: false,
	display: null,
	left: false,
	...change
});
const read = (text: string, order: DateOrder | null = null) => {
	const table = readTable(text);
	return readPeople(table, guessMapping(table.header), { dateOrder: order, nameOrder: null, today: '2026-12-08' });
};
const entry = (change: Partial<PersonEntry> = {}): PersonEntry => ({
	line: 2,
	number: 'DO-1001',
	given: 'Adaeze',
	family: 'Obi',
	...change
});
const plan = (people: KnownPerson[], entries: PersonEntry[], makeGroups = false) =>
	planImport(people, ['Watch A', 'Watch B'], { entries, problems: [] }, { makeGroups, missing: 'keep' });

describe('columns', () => {
	it.each([
		['as Otium writes them', 'Candidate number,Given name,Family name,Groups,E-mail,Date of birth', [0, 1, 2, 3, 4, 5]],
		['in other words and another order', 'Surname;First name;Student ID;DOB;Class;Email address', [2, 1, 0, 4, 5, 3]],
		['each once', 'id,First,Last,Extra time,Extra time factor', [0, 1, 2, null, null, null]]
	])('are recognised %s', (_, heading, wanted) => {
		const mapping = guessMapping(readTable(`${heading}\n`).header);
		expect([mapping.number, mapping.given, mapping.family, mapping.groups, mapping.email, mapping.birth]).toEqual(
			wanted
		);
		expect(missingColumns(mapping, false)).toEqual([]);
	});

	it('those that are needed and missing are named', () => {
		expect(missingColumns(guessMapping(['Shoe size', 'Surname']), false)).toEqual(['Candidate number', 'Given name']);
	});
});

describe('people without numbers', () => {
	const taken = [madeNumber(1001), 'do1001'];
	const numbered = (text: string, there: KnownPerson[] = [], sameNames: 'ask' | 'two' = 'ask') => {
		const table = readTable(text);
		const read = readPeople(table, guessMapping(table.header), {
			dateOrder: null,
			nameOrder: null,
			today: '2026-12-02'
		});
		return withNumbers(read, there, taken, sameNames);
	};

	it('the last digit checks the others: one digit mistyped, or two that changed places, is another number', () => {
		// ISO/IEC 7064, MOD 11,10: 0794 has the check digit 5 (the example of the standard, from memory).
		expect(checkDigit('0794')).toBe('5');
		fc.assert(
			fc.property(
				fc.integer({ min: 1001, max: 99_999 }),
				fc.nat(5),
				fc.integer({ min: 1, max: 9 }),
				(counter, at, by) => {
					const number = madeNumber(counter);
					const place = at % (number.length - 1);
					const wrong = [...number].with(place, String((Number(number[place]) + by) % 10)).join('');
					expect(madeNumber(Number(wrong.slice(0, -1)))).not.toBe(wrong);
				}
			),
			{ numRuns: runs(200) }
		);
	});

	it('get numbers that nobody has, and the same ones when the file comes again', () => {
		const first = numbered('Name;Class\nObi, Adaeze;8A\nFerro, Nessa;8B').entries;
		expect(first.map(({ number }) => number)).toEqual([madeNumber(1002), madeNumber(1003)]);
		const there = first.map(({ number, given, family, groups }, i) =>
			known({ id: `p${i}`, number, given, family, groups })
		);
		expect(numbered('Name;Class\nFerro, Nessa;9B\nObi, Adaeze;9A', there).entries.map(({ number }) => number)).toEqual(
			first.map(({ number }) => number).reverse()
		);
	});

	it('the same name twice is asked about, but not where birthday or class tells them apart', () => {
		const twice = 'Name,Class,Born\n"Lee, Ann",8A,2010-01-02\n"Lee, Ann",8A,2010-01-02';
		expect(numbered(twice).problems.map(({ line, message }) => [line, message])).toEqual([
			[3, 'Ann Lee is on line 2 as well. Are they two people? Say so below, or take one line out.']
		]);
		expect(new Set(numbered(twice, [], 'two').entries.map(({ number }) => number)).size).toBe(2);
		expect(numbered(twice.replace('8A,2010-01-02\n', '8B,2010-01-02\n')).problems).toEqual([]);
	});

	it('two people here of one name: the class tells, or somebody is asked', () => {
		const there = ['8A', '8B'].map((name, i) =>
			known({ id: name, number: `n${i}`, given: 'Ann', family: 'Lee', groups: [name] })
		);
		expect(numbered('Name,Class\n"Lee, Ann",8B', there).entries.map(({ number }) => number)).toEqual(['n1']);
		expect(numbered('Name\n"Lee, Ann"', there).problems[0].message).toContain('2 people here are called Ann Lee');
	});
});

describe('a pasted list', () => {
	it.each([
		['Lee, Ann\nObi, Adaeze', [['Lee, Ann'], ['Obi, Adaeze']]],
		['Ann Lee\n\nAdaeze Obi\n', [['Ann Lee'], ['Adaeze Obi']]],
		[
			'Ann Lee\t8A\nAdaeze Obi\t8B',
			[
				['Ann Lee', '8A'],
				['Adaeze Obi', '8B']
			]
		]
	])('%j is names, not a heading', (text, rows) => {
		const table = readTable(pastedTable(text));
		expect(table.header[0]).toBe('Name');
		expect(table.rows.map(({ cells }) => cells)).toEqual(rows);
	});

	it('with a heading it is taken as it is', () => {
		const table = readTable(pastedTable('Surname\tFirst name\nLee\tAnn'));
		expect([table.header, table.rows[0].cells]).toEqual([
			['Surname', 'First name'],
			['Lee', 'Ann']
		]);
	});
});

describe('extra time as offices write it', () => {
	it.each([
		['25 %', { factor: 1.25, minutes: 0 }],
		['25%', { factor: 1.25, minutes: 0 }],
		['1,5', { factor: 1.5, minutes: 0 }],
		['x1.25', { factor: 1.25, minutes: 0 }],
		['15', { factor: 1, minutes: 15 }],
		['15 min', { factor: 1, minutes: 15 }],
		['15 min per hour', { factor: 1.25, minutes: 0 }],
		['none', { factor: 1, minutes: 0 }]
	])('“%s” under “Extra time”', (text, wanted) =>
		expect(read(`number,family,given,extra time\nDO-1,A,B,"${text}"`).entries[0]?.extraTime).toEqual(wanted)
	);

	it('150 % is asked about: half as much again, or two and a half times', () => {
		const { problems } = read('number,family,given,extra time\nDO-1,A,B,150%');
		expect(problems[0].message).toBe('“150%” can mean 1.5 times the time, or 150 % more. Write 1.5 or 2.5.');
	});
});

describe('whole names in one column', () => {
	it.each([
		['Obi, Adaeze', 'comma', 'Adaeze', 'Obi'],
		['Adaeze Obi', 'given_first', 'Adaeze', 'Obi'],
		['Ana Maria dos Santos', 'given_first', 'Ana Maria', 'dos Santos'],
		['Jan van der Berg', 'given_first', 'Jan', 'van der Berg'],
		['Obi Adaeze', 'family_first', 'Adaeze', 'Obi'],
		['de la Cruz Rosa Maria', 'family_first', 'Rosa Maria', 'de la Cruz'],
		['  Sukarno ', 'given_first', '', 'Sukarno'],
		// Whatever order was chosen, a comma says it.
		['Ito, Hale', 'given_first', 'Hale', 'Ito']
	] as const)('“%s” (%s)', (whole, order, given, family) => {
		expect(splitName(whole, order)).toEqual({ given, family });
	});

	it('are read by a file that has no other names, and commas are seen', () => {
		const { entries, problems } = read('ID,Name\nDO-1,"Obi, Adaeze"\nDO-2,"Ferro, Nessa"');
		expect(problems).toEqual([]);
		expect(entries.map(({ given, family }) => [given, family])).toEqual([
			['Adaeze', 'Obi'],
			['Nessa', 'Ferro']
		]);
		expect(missingColumns(guessMapping(['ID', 'Name']), false)).toEqual([]);
		expect(missingColumns(guessMapping(['Name']), false)).toEqual(['Candidate number']);
	});

	it('lose no letter, however they are written', () => {
		fc.assert(
			fc.property(
				fc.array(fc.stringMatching(/^[\p{L}'-]{1,12}$/u), { minLength: 1, maxLength: 6 }),
				fc.constantFrom<NameOrder[]>('comma', 'given_first', 'family_first'),
				(words, order) => {
					const { given, family } = splitName(words.join(' '), order);
					const letters = (text: string) => [...text.replaceAll(' ', '')].sort().join('');
					expect(letters(given + family)).toBe(letters(words.join('')));
					expect(family).not.toBe('');
				}
			)
		);
	});
});

describe('rows', () => {
	it('take grade, user name and who sits elsewhere', () => {
		expect(read('number,given,family,grade,user name,remote\nDO-1,A,B,Second Year,ab1,yes').entries[0]).toMatchObject({
			grade: 'Second Year',
			userName: 'ab1',
			elsewhere: true
		});
	});

	it('a birth that is still to come, or before 1900, is asked about', () => {
		const { problems } = read(
			'number,given,family,birth\nDO-1,A,B,2108-05-31\nDO-2,A,B,1870-01-01\nDO-3,A,B,2008-05-31'
		);
		expect(problems.map(({ line, message }) => [line, message])).toEqual([
			[2, '2108-05-31 is still to come. Check the year.'],
			[3, '1870-01-01 is before 1900. Check the year.']
		]);
	});

	it('become people, with what the file has no column for left open', () => {
		expect(
			read('number,given,family,group,factor,minutes,birth\nDO-1,Zoë,Ó Briain,Watch A; Watch B,"1,5",10,31/05/2007')
				.entries
		).toEqual([
			{
				line: 2,
				number: 'DO-1',
				given: 'Zoë',
				family: 'Ó Briain',
				groups: ['Watch A', 'Watch B'],
				extraTime: { factor: 1.5, minutes: 10 },
				birth: '2007-05-31'
			}
		]);
	});

	it('each fault names its line, its column and what would work', () => {
		const { entries, problems } = read(
			'number,given,family,email,factor,birth\n=1+1,A,B,,,\nDO-2,,B,nobody,0.5,31/13/2007\nDO-3,A,B,a@b.example,50%,2007-02-29\nDO-4,,B,,25%,'
		);
		expect(entries.map((one) => [one.number, one.extraTime?.factor])).toEqual([['DO-4', 1.25]]);
		expect(problems.map((one) => `${one.line} ${one.field}`)).toEqual([
			'2 Candidate number',
			'3 E-mail',
			'3 Date of birth',
			'3 Extra time, factor',
			'4 Date of birth'
		]);
	});

	it('dates in either order are asked about, unless one of them settles it by itself', () => {
		const text = 'number,given,family,birth\nDO-1,A,B,05/06/2007\nDO-2,A,B,07/07/2007';
		const table = readTable(text);
		expect(isDateOrderOpen(table, guessMapping(table.header))).toBe(true);
		expect(read(text).problems).toHaveLength(1);
		expect(read(text, 'day_first').entries[0].birth).toBe('2007-06-05');
		expect(read(text, 'month_first').entries[0].birth).toBe('2007-05-06');
		const settled = `${text}\nDO-3,A,B,31/01/2007`;
		expect(isDateOrderOpen(readTable(settled), guessMapping(table.header))).toBe(false);
		expect(read(settled).entries.map((one) => one.birth)).toEqual(['2007-06-05', '2007-07-07', '2007-01-31']);
		const torn = `${settled}\nDO-4,A,B,01/31/2007`;
		expect(isDateOrderOpen(readTable(torn), guessMapping(table.header))).toBe(true);
	});
});

describe('the plan of an import', () => {
	it('adds, changes and leaves alone', () => {
		const people = [known(), known({ id: 'c2', number: 'DO-1002', family: 'Moor' })];
		const made = plan(people, [
			entry({ number: 'do 1001' }),
			entry({ line: 3, number: 'DO-1002', family: 'Moore' }),
			entry({ line: 4, number: 'DO-1003' })
		]);
		expect(made.add.map((one) => one.line)).toEqual([4]);
		expect(made.change.map((one) => [one.person.id, one.differences])).toEqual([
			['c1', ['number DO-1001 → do 1001']],
			['c2', ['family name Moor → Moore']]
		]);
	});

	it('a second import of the same file changes nothing', () => {
		const same = entry({ groups: ['watch a'], email: null, extraTime: { factor: 1, minutes: 0 } });
		expect(plan([known()], [same])).toMatchObject({ add: [], change: [], same: 1, missing: [] });
	});

	it('a number that stands twice is told with both lines', () => {
		expect(plan([], [entry(), entry({ line: 9 })])).toMatchObject({
			add: [{ line: 2 }],
			problems: [{ line: 9, message: expect.stringMatching(/already on line 2/) }]
		});
	});

	it('an unknown group is refused with a guess, or made when wanted', () => {
		const one = entry({ groups: ['Wach A'] });
		expect(plan([], [one]).problems[0].message).toMatch(/Is “Watch A” meant/);
		expect(plan([], [one], true)).toMatchObject({ newGroups: ['Wach A'], problems: [], add: [{ groups: ['Wach A'] }] });
	});

	it('whoever is in a group of the file but not in the file is asked about; other groups are not its business', () => {
		const people = [
			known({ id: 'gone', number: 'DO-9' }),
			known({ id: 'other', number: 'DO-8', groups: ['Watch B'] }),
			known({ id: 'left', number: 'DO-7', left: true })
		];
		expect(plan(people, [entry({ groups: ['Watch A'] })]).missing.map((one) => one.id)).toEqual(['gone']);
	});

	it('matches by the other system’s id when the number changed, and stops at a contradiction', () => {
		const people = [known({ sourceId: 'u1' }), known({ id: 'c2', number: 'DO-2', given: 'Bram', sourceId: 'u2' })];
		expect(plan(people, [entry({ number: 'DO-77', sourceId: 'u1' })]).change[0].differences).toEqual([
			'number DO-1001 → DO-77'
		]);
		expect(plan(people, [entry({ number: 'DO-2', sourceId: 'u1' })]).problems[0].message).toMatch(/Bram Obi’s number/);
	});
});

describe('OneRoster 1.1', () => {
	const files = (change: Record<string, string> = {}) =>
		new Map(
			Object.entries({
				'manifest.csv':
					'propertyName,value\noneroster.version,1.1\nfile.orgs,bulk\nfile.users,bulk\nfile.classes,bulk\nfile.enrollments,bulk',
				'orgs.csv':
					'sourcedId,status,dateLastModified,name,type,identifier,parentSourcedId\no1,,,Quayside,school,,\no2,,,Lighthouse Point,school,,\nd1,,,District,district,,',
				'users.csv':
					'sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName,middleName,identifier,email,sms,phone,agentSourcedIds,grades,password\n' +
					'u1,,,true,o1,student,aobi,,Adaeze,Obi,,DO-1001,a@sea.example,,,,,\nu2,,,true,"o1,o2",student,bt,,Bram,Teller,,,,,,,,\nu3,,,true,o1,teacher,rd,,Rhys,Dunmore,,,,,,,,\nu4,,,true,o2,student,x,,Elsewhere,One,,,,,,,,',
				'classes.csv':
					'sourcedId,status,dateLastModified,title,grades,courseSourcedId,classCode,classType,location,schoolSourcedId,termSourcedIds,subjects,subjectCodes,periods\nk1,,,Watch A,,,,homeroom,,o1,,,,\nk2,,,Lamp,,,,homeroom,,o2,,,,',
				'enrollments.csv':
					'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role,primary,beginDate,endDate\ne1,,,k1,o1,u1,student,,,\ne2,,,k2,o2,u2,student,,,',
				...change
			})
		);

	it('gives the students of one school with their classes', () => {
		const got = readOneRoster(files(), [], 'o1');
		expect(got.ok && got.people).toEqual({
			entries: [
				{
					line: 2,
					number: 'DO-1001',
					given: 'Adaeze',
					family: 'Obi',
					email: 'a@sea.example',
					sourceId: 'u1',
					leaves: false,
					groups: ['Watch A']
				},
				{
					line: 3,
					number: 'bt',
					given: 'Bram',
					family: 'Teller',
					email: null,
					sourceId: 'u2',
					leaves: false,
					groups: []
				}
			],
			problems: []
		});
	});

	it('asks which school when there are several', () => {
		expect(readOneRoster(files(), [], null)).toMatchObject({
			ok: false,
			schools: [{ name: 'Quayside' }, { name: 'Lighthouse Point' }]
		});
	});

	it('a delta works upon what is known; tobedeleted takes away', () => {
		const delta = files({
			'manifest.csv': 'propertyName,value\nfile.users,delta\nfile.enrollments,delta',
			'users.csv':
				'sourcedId,status,dateLastModified,enabledUser,orgSourcedIds,role,username,userIds,givenName,familyName,middleName,identifier,email\nu2,tobedeleted,2026-11-01T08:00:00.000Z,true,o1,student,bt,,Bram,Teller,,,',
			'enrollments.csv':
				'sourcedId,status,dateLastModified,classSourcedId,schoolSourcedId,userSourcedId,role\ne1,tobedeleted,2026-11-01T08:00:00.000Z,k1,o1,u1,student\ne9,active,2026-11-01T08:00:00.000Z,k9,o1,u1,student'
		});
		const people = [
			known({ sourceId: 'u1' }),
			known({ id: 'c2', number: 'bt', given: 'Bram', family: 'Teller', sourceId: 'u2' })
		];
		const got = readOneRoster(delta, people, 'o1');
		expect(got.ok && got.isDelta).toBe(true);
		expect(got.ok && got.people.entries).toMatchObject([
			{ sourceId: 'u2', leaves: true },
			{ sourceId: 'u1', groups: [] }
		]);
		expect(got.ok && got.people.problems).toEqual([
			{ line: 3, field: 'enrollments.csv', message: expect.stringMatching(/k9/) }
		]);
	});

	it.each([
		['a folder without users', { 'users.csv': undefined }, /users\.csv is missing/],
		['a file without its columns', { 'users.csv': 'sourcedId,role\nu1,student' }, /no column username/]
	])('%s is refused', (_, change, message) => {
		const broken = files();
		for (const [name, text] of Object.entries(change))
			if (text === undefined) broken.delete(name);
			else broken.set(name, text);
		expect(readOneRoster(broken, [], 'o1')).toMatchObject({ ok: false, message: expect.stringMatching(message) });
	});

	it('a status that the standard does not know is a problem of its row', () => {
		const got = readOneRoster(
			files({ 'orgs.csv': 'sourcedId,status,name,type\no1,active,Quayside,school\no2,gone,X,school' }),
			[],
			'o1'
		);
		expect(got.ok && got.people.problems).toMatchObject([{ line: 3, field: 'orgs.csv' }]);
	});

	it('what is written has the standard’s headings and is read back as it was', () => {
		const people = [
			known({ sourceId: 'u1', email: 'a@sea.example' }),
			known({ id: 'c2', number: 'DO-2', given: 'Bram, jr.' })
		];
		const written = writeOneRoster({ id: 'quayside', name: 'Quayside' }, [{ id: 'g1', name: 'Watch A' }], people);
		for (const [name, columns] of Object.entries(ONE_ROSTER))
			expect(readTable(written.get(name)!).header).toEqual(columns);
		const back = readOneRoster(written, people, null);
		expect(
			back.ok && planImport(people, ['Watch A'], back.people, { makeGroups: false, missing: 'keep' })
		).toMatchObject({ add: [], missing: [], problems: [], same: 1 });
	});
});
