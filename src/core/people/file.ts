import { foldNumber } from '../access';
import { counted } from '../names';
import { pastedTable } from './pasted';
import { withNumbers, type SameNames } from './made-number';
import {
	isArchive,
	readArchive,
	readNeedsProfile,
	readTable,
	readText,
	type NeedsProfile,
	type RowProblem,
	type Table,
	type TableRow
} from '../formats';
import {
	guessMapping,
	hasUnseen,
	isDateOrderOpen,
	missingColumns,
	readPeople,
	splitsNames,
	type DateOrder,
	type Mapping
} from './columns';
import { guessNameOrder, splitName, type NameOrder, type SplitName } from './split-name';
import { readOneRoster, type School } from './one-roster';
import type { KnownPerson, PersonEntry } from './person';
import { planImport, type ImportPlan } from './plan';

/** A file of people may have so many bytes. */
export const MOST_BYTES = 10 * 1024 * 1024;

/** How a file is to be taken; null: as it seems to be meant. */
export type ImportAsked = {
	siteId: string;
	mapping: Mapping | null;
	separator: string | null;
	dateOrder: DateOrder | null;
	nameOrder: NameOrder | null;
	/** null: where the site has no group yet. */
	makeGroups: boolean | null;
	/** null: where no column holds numbers. */
	makeNumbers: boolean | null;
	sameNames: SameNames;
	missing: 'keep' | 'leave';
	schoolId: string | null;
	/** Of a workbook, by its name. */
	sheet: string | null;
	/** A list that was pasted: it may have no heading. */
	isPasted: boolean;
};

/** A file for a site, taken as it seems to be meant, that changes nothing but what it names. */
export function asItSeems(siteId: string): ImportAsked {
	return {
		siteId,
		mapping: null,
		separator: null,
		dateOrder: null,
		nameOrder: null,
		makeGroups: null,
		makeNumbers: null,
		sameNames: 'ask',
		missing: 'keep',
		schoolId: null,
		sheet: null,
		isPasted: false
	};
}

/** What a file is and would do. */
export type ReadFile = {
	format: 'csv' | 'one_roster' | 'needs';
	note: string | null;
	/** What of a workbook was chosen, and what of the file is not read as it stands. */
	told: string[];
	/** Numbers are made for those who have none; groups that nobody knows are made. */
	makesNumbers: boolean;
	makesGroups: boolean;
	plan: ImportPlan;
	table: {
		header: string[];
		mapping: Mapping;
		/** null: of a workbook, which has none. */
		separator: string | null;
		sample: string[][];
		dateOrderOpen: boolean;
		/** How whole names come apart, where they are to be split. */
		split: (SplitName & { whole: string })[] | null;
		nameOrder: NameOrder;
		/** Columns that hold nothing of what is asked for, with their first values. */
		leftOut: { name: string; values: string[] }[];
		/** Of a workbook: the sheet that was read, and all there are. */
		sheet: string | null;
		sheets: string[];
	} | null;
	schools: School[];
	isDelta: boolean;
};
export type FileRefused = { message: string; schools?: School[]; table?: ReadFile['table'] };
export type ReadFileResult = { ok: true; file: ReadFile } | { ok: false; refused: FileRefused };

/** What is known of a site when a file about its people is read. */
export type KnownSite = {
	people: KnownPerson[];
	groups: string[];
	/** All numbers of the house, folded: none is given twice. */
	taken: string[];
	/** The site's local day, `2026-12-08`. */
	today: string;
};
/** A workbook's sheet, read already; null: the file is none. */
export type Sheet = { header: string[]; rows: TableRow[]; told: string[]; sheet: string; sheets: string[] } | null;

/** Reads a file and works out what it would do: by what is in it, not by what it is called. */
export function readPeopleFile(
	name: string,
	bytes: Uint8Array,
	known: KnownSite,
	asked: ImportAsked,
	sheet: Sheet = null
): ReadFileResult {
	if (bytes.length > MOST_BYTES)
		return refuse(
			`This file is ${Math.round(bytes.length / 1024 / 1024)} MB; the most is 10 MB. Split it by group, or zip it.`
		);
	if (bytes.length === 0) return refuse('This file is empty.');
	if (sheet !== null) return readRows({ ...sheet, separator: null, problems: [] }, null, known, asked, sheet);
	if (isArchive(bytes)) return readArchived(bytes, known, asked);
	const read = readText(bytes);
	if (!read.ok) return refuse(read.message);
	if (/^\s{0,100}</.test(read.text)) return readProfiles(new Map([[name, bytes]]), known, asked);
	return readTabled(read, known, asked);
}

function refuse(message: string, more: Omit<FileRefused, 'message'> = {}): ReadFileResult {
	return { ok: false, refused: { message, ...more } };
}

function readTabled(read: { text: string; note: string | null }, known: KnownSite, asked: ImportAsked): ReadFileResult {
	const table = readTable(asked.isPasted ? pastedTable(read.text) : read.text, asked.separator ?? undefined);
	if (table.header.length === 0 && table.problems.length > 0)
		return refuse(`Line ${table.problems[0].line}: ${table.problems[0].message}`);
	return readRows(table, read.note, known, asked);
}

type Rows = Omit<Table, 'separator'> & { separator: string | null };

/** Values of a column by which somebody knows it again. */
function firstOf(table: Table, column: number): string[] {
	return table.rows.flatMap(({ cells }) => cells[column] || []).slice(0, 3);
}

function readRows(
	rows: Rows,
	note: string | null,
	known: KnownSite,
	asked: ImportAsked,
	sheet: Sheet = null
): ReadFileResult {
	const table: Table = { ...rows, separator: rows.separator ?? ',' };
	const mapping = asked.mapping ?? guessMapping(table.header);
	const wholes = table.rows.map((row) => row.cells[mapping.whole ?? -1] ?? '');
	const nameOrder = asked.nameOrder ?? guessNameOrder(wholes);
	const shown = {
		header: table.header,
		mapping,
		separator: rows.separator,
		sample: table.rows.slice(0, 3).map((row) => row.cells),
		dateOrderOpen: isDateOrderOpen(table, mapping),
		split: splitsNames(mapping) ? wholes.slice(0, 5).map((whole) => ({ whole, ...splitName(whole, nameOrder) })) : null,
		nameOrder,
		leftOut: table.header.flatMap((name, i) => {
			const values = firstOf(table, i);
			const isRead = Object.values(mapping).includes(i);
			return isRead || values.length === 0 ? [] : [{ name: name || `Column ${i + 1}`, values }];
		}),
		sheet: sheet?.sheet ?? null,
		sheets: sheet?.sheets ?? []
	};
	const makesNumbers = asked.makeNumbers ?? mapping.number === null;
	const makesGroups = asked.makeGroups ?? known.groups.length === 0;
	const missing = missingColumns(mapping, makesNumbers);
	if (missing.length > 0)
		return refuse(`Say which column holds: ${missing.join(', ')}. The first line of the file is its heading.`, {
			table: shown
		});
	if (table.rows.length === 0 && table.problems.length === 0)
		return refuse('There are no rows below the heading.', { table: shown });
	const how = { dateOrder: asked.dateOrder, nameOrder, today: known.today };
	const read = readPeople(table, mapping, how);
	const isNumbered = mapping.number !== null || !makesNumbers;
	const people = isNumbered ? read : withNumbers(read, known.people, known.taken, asked.sameNames);
	const plan = planImport(known.people, known.groups, people, { ...asked, makeGroups: makesGroups });
	const told = [...(sheet?.told ?? [])];
	const unseen = table.rows.filter(({ cells }) => nameColumns(mapping).some((at) => hasUnseen(cells[at]))).length;
	if (unseen > 0) told.push(`Signs that nobody sees are left out of ${counted(unseen, 'name')}.`);
	return {
		ok: true,
		file: {
			format: 'csv',
			note,
			told,
			makesNumbers: !isNumbered,
			makesGroups,
			plan,
			table: shown,
			schools: [],
			isDelta: false
		}
	};
}

function nameColumns({ given, family, whole, number }: Mapping): number[] {
	return [given, family, whole, number].filter((at) => at !== null);
}

function readArchived(bytes: Uint8Array, known: KnownSite, asked: ImportAsked): ReadFileResult {
	const archive = readArchive(bytes);
	if (!archive.ok) return refuse(archive.message);
	if (!archive.files.has('users.csv') && [...archive.files.keys()].some((name) => name.endsWith('.xml')))
		return readProfiles(archive.files, known, asked);
	const texts = new Map<string, string>();
	for (const [name, content] of archive.files) {
		if (!name.endsWith('.csv')) continue;
		const read = readText(content);
		if (!read.ok) return refuse(`${name}: ${read.message}`);
		texts.set(name, read.text);
	}
	const roster = readOneRoster(texts, known.people, asked.schoolId);
	if (!roster.ok) return refuse(roster.message, { schools: roster.schools });
	// A delta tells of nobody but those who changed: nobody else is missing.
	const makesGroups = asked.makeGroups ?? known.groups.length === 0;
	const plan = planImport(known.people, known.groups, roster.people, { ...asked, makeGroups: makesGroups });
	if (roster.isDelta) plan.missing = [];
	const { schools, isDelta } = roster;
	return {
		ok: true,
		file: { ...NOTHING_MORE, format: 'one_roster', makesGroups, plan, schools, isDelta }
	};
}

/** What a file that is no table tells. */
const NOTHING_MORE = { note: null, told: [], makesNumbers: false, makesGroups: false, table: null };

/** Needs profiles name nobody; each file's name is its candidate's number. */
function readProfiles(files: Map<string, Uint8Array>, known: KnownSite, asked: ImportAsked): ReadFileResult {
	const byNumber = new Map(known.people.map((person) => [foldNumber(person.number), person]));
	const problems: RowProblem[] = [];
	const entries = [...files].flatMap(([name, content], i) => {
		if (!name.endsWith('.xml')) return [];
		const complain = (message: string) => void problems.push({ line: i + 1, field: name, message });
		const person = byNumber.get(foldNumber(name.replace(/\.xml$/, '')));
		if (!person) {
			complain('No candidate has this number. Name the file after one, like DO-1043.xml.');
			return [];
		}
		const text = readText(content);
		const read = text.ok ? readNeedsProfile(text.text) : text;
		if (!read.ok) {
			complain(read.message);
			return [];
		}
		return [entryOf(person, read.profile, i + 1)];
	});
	const plan = planImport(known.people, known.groups, { entries, problems }, { ...asked, makeGroups: false });
	return {
		ok: true,
		file: { ...NOTHING_MORE, format: 'needs', plan: { ...plan, missing: [] }, schools: [], isDelta: true }
	};
}

function entryOf(person: KnownPerson, profile: NeedsProfile, line: number): PersonEntry {
	const { number, given, family } = person;
	return {
		line,
		number,
		given,
		family,
		extraTime: { factor: profile.factor, minutes: profile.minutes },
		unlimited: profile.unlimited,
		display:
			(profile.magnification ?? 1) > 1 || profile.contrast
				? { magnification: profile.magnification ?? 1, contrast: profile.contrast }
				: null,
		...(profile.language === null ? {} : { language: profile.language })
	};
}
