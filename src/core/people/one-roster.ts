import { foldName } from '../access';
import { readTable, writeCsv, type RowProblem } from '../formats';
import type { KnownPerson, People, PersonEntry } from './person';

/** Files and headings of OneRoster 1.1 CSV (1EdTech), from memory of its tables; only the columns read are needed. */
export const ONE_ROSTER = {
	'orgs.csv': ['sourcedId', 'status', 'dateLastModified', 'name', 'type', 'identifier', 'parentSourcedId'],
	'users.csv': [
		'sourcedId',
		'status',
		'dateLastModified',
		'enabledUser',
		'orgSourcedIds',
		'role',
		'username',
		'userIds',
		'givenName',
		'familyName',
		'middleName',
		'identifier',
		'email',
		'sms',
		'phone',
		'agentSourcedIds',
		'grades',
		'password'
	],
	'classes.csv': [
		'sourcedId',
		'status',
		'dateLastModified',
		'title',
		'grades',
		'courseSourcedId',
		'classCode',
		'classType',
		'location',
		'schoolSourcedId',
		'termSourcedIds',
		'subjects',
		'subjectCodes',
		'periods'
	],
	'enrollments.csv': [
		'sourcedId',
		'status',
		'dateLastModified',
		'classSourcedId',
		'schoolSourcedId',
		'userSourcedId',
		'role',
		'primary',
		'beginDate',
		'endDate'
	]
} as const;
type FileName = keyof typeof ONE_ROSTER;

const NEEDED: Record<FileName, readonly string[]> = {
	'orgs.csv': ['sourcedId', 'name', 'type'],
	'users.csv': ['sourcedId', 'role', 'username', 'givenName', 'familyName', 'orgSourcedIds'],
	'classes.csv': ['sourcedId', 'title', 'schoolSourcedId'],
	'enrollments.csv': ['classSourcedId', 'userSourcedId', 'role']
};
/** `tobedeleted` is a delta's word; in bulk files the status is empty. */
const STATUSES = new Set(['', 'active', 'tobedeleted']);

export type School = { id: string; name: string };
export type ReadOneRoster =
	| { ok: true; people: People; schools: School[]; isDelta: boolean }
	| { ok: false; message: string; schools: School[] };

type Record1 = { line: number; get: (column: string) => string };

/**
 * Reads a OneRoster 1.1 CSV folder as the people of one school. In bulk the files tell everything; a delta tells what
 * changed, and is worked out upon what is known.
 * @param files by name, as text
 * @param schoolId which school of the files; null when there is one only
 */
export function readOneRoster(
	files: Map<string, string>,
	known: KnownPerson[],
	schoolId: string | null
): ReadOneRoster {
	const problems: RowProblem[] = [];
	const tables = {} as Record<FileName, Record1[]>;
	const manifest = modesOf(files.get('manifest.csv'));
	for (const name of Object.keys(ONE_ROSTER) as FileName[]) {
		const text = files.get(name);
		if (text === undefined && manifest.get(name) !== 'absent' && (name === 'users.csv' || name === 'orgs.csv'))
			return { ok: false, message: `${name} is missing. Send the whole OneRoster folder as a zip.`, schools: [] };
		const table = readTable(text ?? '', ',');
		const lacking = text === undefined ? [] : NEEDED[name].filter((column) => !table.header.includes(column));
		if (lacking.length > 0)
			return {
				ok: false,
				message: `${name} has no column ${lacking.join(', ')}. OneRoster 1.1 needs it.`,
				schools: []
			};
		problems.push(...table.problems.map((problem) => ({ ...problem, field: name })));
		tables[name] = [];
		for (const { line, cells } of table.rows) {
			const get = (column: string) => cells[table.header.indexOf(column)] ?? '';
			const status = get('status').toLowerCase();
			if (STATUSES.has(status)) tables[name].push({ line, get });
			else problems.push({ line, field: name, message: `The status “${status}” is neither active nor tobedeleted.` });
		}
	}

	const schools = tables['orgs.csv']
		.filter((row) => row.get('type') === 'school' && !isDeleted(row))
		.map((row) => ({ id: row.get('sourcedId'), name: row.get('name') }));
	const school = schoolId ?? (schools.length === 1 ? schools[0].id : null);
	if (school === null || !schools.some((one) => one.id === school)) {
		const message =
			schools.length === 0
				? 'orgs.csv names no school.'
				: `Say which school: ${schools.map((one) => one.name).join(', ')}.`;
		return { ok: false, message, schools };
	}
	const isDelta = manifest.get('users.csv') === 'delta' || manifest.get('enrollments.csv') === 'delta';
	const people = peopleOf(tables, known, school, isDelta);
	return { ok: true, people: { ...people, problems: [...problems, ...people.problems] }, schools, isDelta };
}

const isDeleted = (row: Record1) => row.get('status').toLowerCase() === 'tobedeleted';

/** The manifest's `file.users,bulk` lines: which file is there whole, as changes, or not at all. */
function modesOf(manifest: string | undefined): Map<string, string> {
	const modes = new Map<string, string>();
	for (const { cells } of readTable(manifest ?? '', ',').rows) {
		const file = /^file\.(\w+)$/.exec(cells[0])?.[1];
		if (file) modes.set(`${file}.csv`, cells[1].toLowerCase());
	}
	return modes;
}

function peopleOf(tables: Record<FileName, Record1[]>, known: KnownPerson[], school: string, isDelta: boolean): People {
	const people: People = { entries: [], problems: [] };
	const bySource = new Map(known.filter((person) => person.sourceId).map((person) => [person.sourceId!, person]));
	const titles = new Map(
		tables['classes.csv']
			.filter((row) => row.get('schoolSourcedId') === school)
			.map((row) => [row.get('sourcedId'), row.get('title')])
	);
	const groups = new Map<string, Set<string>>();
	const groupsOf = (id: string) => {
		const found = groups.get(id) ?? new Set(isDelta ? bySource.get(id)?.groups : []);
		groups.set(id, found);
		return found;
	};
	for (const row of tables['enrollments.csv']) {
		if (row.get('role') !== 'student') continue;
		const title = titles.get(row.get('classSourcedId'));
		// A class of another school is not this one's business; a class that no file knows is a fault.
		if (title === undefined) {
			if (!tables['classes.csv'].some((one) => one.get('sourcedId') === row.get('classSourcedId')))
				people.problems.push({
					line: row.line,
					field: 'enrollments.csv',
					message: `No class has the id “${row.get('classSourcedId')}”.`
				});
			continue;
		}
		if (isDeleted(row)) groupsOf(row.get('userSourcedId')).delete(title);
		else groupsOf(row.get('userSourcedId')).add(title);
	}

	const listed = new Set<string>();
	for (const row of tables['users.csv']) {
		const id = row.get('sourcedId');
		if (row.get('role') !== 'student' || !row.get('orgSourcedIds').split(',').includes(school)) continue;
		if (listed.has(id)) {
			people.problems.push({ line: row.line, field: 'users.csv', message: `The id “${id}” comes twice.` });
			continue;
		}
		listed.add(id);
		const entry: PersonEntry = {
			line: row.line,
			number: row.get('identifier') || row.get('username'),
			given: row.get('givenName'),
			family: row.get('familyName'),
			email: row.get('email') || null,
			sourceId: id,
			leaves: isDeleted(row) || row.get('enabledUser').toLowerCase() === 'false',
			...(isDelta && !groups.has(id) ? {} : { groups: [...groupsOf(id)] })
		};
		if (foldName(entry.number) && entry.family) people.entries.push(entry);
		else
			people.problems.push({
				line: row.line,
				field: 'users.csv',
				message: 'identifier or username, and familyName, are needed.'
			});
	}
	for (const [id, names] of groups) {
		if (listed.has(id)) continue;
		const person = bySource.get(id);
		if (person) {
			const { number, given, family } = person;
			people.entries.push({ line: 0, number, given, family, sourceId: id, groups: [...names] });
		} else if (!tables['users.csv'].some((row) => row.get('sourcedId') === id))
			people.problems.push({ line: 0, field: 'enrollments.csv', message: `No user has the id “${id}”.` });
	}
	return people;
}

/** The people of a site as a OneRoster 1.1 bulk folder. */
export function writeOneRoster(
	site: School,
	groups: { id: string; name: string }[],
	people: KnownPerson[]
): Map<string, string> {
	const students = people.filter((person) => !person.left);
	const idOf = (person: KnownPerson) => person.sourceId ?? person.id;
	const classId = new Map(groups.map((group) => [group.name, group.id]));
	const rows: Record<FileName, Record<string, string>[]> = {
		'orgs.csv': [{ sourcedId: site.id, name: site.name, type: 'school' }],
		'users.csv': students.map((person) => ({
			sourcedId: idOf(person),
			enabledUser: 'true',
			orgSourcedIds: site.id,
			role: 'student',
			username: person.number,
			givenName: person.given,
			familyName: person.family,
			identifier: person.number,
			email: person.email ?? ''
		})),
		'classes.csv': groups.map((group) => ({
			sourcedId: group.id,
			title: group.name,
			classType: 'scheduled',
			schoolSourcedId: site.id
		})),
		'enrollments.csv': students.flatMap((person) =>
			person.groups.map((name) => ({
				sourcedId: `${idOf(person)}-${classId.get(name)}`,
				classSourcedId: classId.get(name) ?? '',
				schoolSourcedId: site.id,
				userSourcedId: idOf(person),
				role: 'student'
			}))
		)
	};
	const names = Object.keys(ONE_ROSTER) as FileName[];
	const manifest = [
		['propertyName', 'value'],
		['manifest.version', '1.0'],
		['oneroster.version', '1.1'],
		...names.map((name) => [`file.${name.replace('.csv', '')}`, 'bulk'])
	];
	const written = (rows: string[][]) => writeCsv(rows, { mark: false });
	return new Map([
		['manifest.csv', written(manifest)],
		...names.map((name): [string, string] => [
			name,
			written([[...ONE_ROSTER[name]], ...rows[name].map((row) => ONE_ROSTER[name].map((column) => row[column] ?? ''))])
		])
	]);
}
