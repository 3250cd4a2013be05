import { foldName, foldNumber } from '../access';
import { isFormula, type RowProblem, type Table, type TableRow } from '../formats';
import { isEmailAddress } from '../mail';
import type { People, PersonEntry } from './person';
import { guessNameOrder, splitName, type NameOrder } from './split-name';

/** What a column can hold, the most letters that a cell of it may have, and the headings under which offices write it. */
export const COLUMNS = {
	number: {
		name: 'Candidate number',
		needed: true,
		most: 120,
		headings: ['number', 'no', 'id', 'student', 'identifier']
	},
	given: {
		name: 'Given name',
		needed: true,
		most: 120,
		headings: ['given', 'first', 'forename', 'firstname', 'givenname']
	},
	family: {
		name: 'Family name',
		needed: true,
		most: 120,
		headings: ['family', 'last', 'surname', 'lastname', 'familyname']
	},
	whole: {
		name: 'Whole name',
		needed: false,
		most: 240,
		headings: ['name', 'fullname', 'studentname', 'candidate']
	},
	groups: {
		name: 'Groups',
		needed: false,
		most: 2000,
		headings: ['group', 'groups', 'class', 'cohort', 'set', 'watch']
	},
	email: { name: 'E-mail', needed: false, most: 254, headings: ['email', 'mail'] },
	birth: { name: 'Date of birth', needed: false, most: 20, headings: ['birth', 'dob', 'born', 'birthday'] },
	language: { name: 'Language', needed: false, most: 20, headings: ['language', 'lang'] },
	grade: { name: 'Grade or year', needed: false, most: 40, headings: ['grade', 'year', 'yeargroup', 'gradelevel'] },
	userName: { name: 'User name', needed: false, most: 120, headings: ['username', 'login', 'account'] },
	elsewhere: { name: 'Sits elsewhere', needed: false, most: 20, headings: ['elsewhere', 'remote', 'online'] },
	factor: { name: 'Extra time, factor', needed: false, most: 20, headings: ['factor', 'multiplier', 'timefactor'] },
	minutes: { name: 'Extra time, minutes', needed: false, most: 20, headings: ['minutes', 'extraminutes', 'extratime'] },
	separateRoom: { name: 'Separate room', needed: false, most: 20, headings: ['separate', 'separateroom', 'ownroom'] }
} as const;
export type ColumnKey = keyof typeof COLUMNS;
/** Which column of the file holds what; null: none does. */
export type Mapping = Record<ColumnKey, number | null>;
export type DateOrder = 'day_first' | 'month_first';

const KEYS = Object.keys(COLUMNS) as ColumnKey[];

/** The likeliest mapping of a heading; every column is used once. */
export function guessMapping(header: string[]): Mapping {
	const folded = header.map(foldName);
	const taken = new Set<number>();
	const mapping = Object.fromEntries(KEYS.map((key) => [key, null])) as Mapping;
	const passes: ((heading: string, word: string) => boolean)[] = [
		(heading, word) => heading === word,
		(heading, word) => word.length > 3 && heading.includes(word)
	];
	for (const fits of passes) {
		for (const key of KEYS) {
			if (mapping[key] !== null) continue;
			const words = [foldName(COLUMNS[key].name), ...COLUMNS[key].headings];
			const at = folded.findIndex((heading, i) => !taken.has(i) && words.some((word) => fits(heading, word)));
			if (at < 0) continue;
			mapping[key] = at;
			taken.add(at);
		}
	}
	// Where there is no number, people are known by what they sign in with elsewhere.
	if (mapping.number === null && mapping.userName !== null)
		return { ...mapping, number: mapping.userName, userName: null };
	return mapping;
}

/**
 * The columns that must be mapped and are not, by name. Whole names stand in for both parts.
 * @param makesNumbers numbers are made for whoever has none
 */
export function missingColumns(mapping: Mapping, makesNumbers: boolean): string[] {
	const isThere = (key: ColumnKey) =>
		mapping[key] !== null ||
		(key === 'number' && makesNumbers) ||
		(mapping.whole !== null && (key === 'given' || key === 'family'));
	return KEYS.filter((key) => COLUMNS[key].needed && !isThere(key)).map((key) => COLUMNS[key].name);
}

/** Whether whole names are to be split: where the two parts have no columns of their own. */
export function splitsNames(mapping: Mapping): boolean {
	return mapping.whole !== null && mapping.family === null;
}

/** How a table is to be read; null: as it seems to be meant. `today`: a local day, after which nobody was born. */
export type Reading = { dateOrder: DateOrder | null; nameOrder: NameOrder | null; today: string };

/** Reads the rows of a table as people. A row with anything wrong in it is a problem, never half a person. */
export function readPeople(table: Table, mapping: Mapping, how: Reading): People {
	const people: People = { entries: [], problems: [...table.problems] };
	const dateOrder = how.dateOrder ?? orderInUse(table, mapping);
	const nameOrder = how.nameOrder ?? guessNameOrder(table.rows.map((row) => row.cells[mapping.whole ?? -1] ?? ''));
	for (const row of table.rows) {
		const read = readPerson(row, mapping, { ...how, dateOrder, nameOrder });
		if ('number' in read) people.entries.push(read);
		else people.problems.push(...read.problems);
	}
	return people;
}

/** Whether dates of birth in the file could be read either way, so that somebody has to say which. */
export function isDateOrderOpen(table: Table, mapping: Mapping): boolean {
	const dates = slashedDates(table, mapping);
	const isOpen = ([a, b]: [number, number]) => a <= 12 && b <= 12 && a !== b;
	return dates.some(isOpen) && orderInUse(table, mapping) === null;
}

/** The order that the dates which can be read in one way only agree on; null: there are none, or they do not agree. */
function orderInUse(table: Table, mapping: Mapping): DateOrder | null {
	const dates = slashedDates(table, mapping);
	const dayFirst = dates.some(([a]) => a > 12);
	const monthFirst = dates.some(([, b]) => b > 12);
	if (dayFirst === monthFirst) return null;
	return dayFirst ? 'day_first' : 'month_first';
}

function slashedDates(table: Table, mapping: Mapping): [number, number][] {
	const at = mapping.birth;
	if (at === null) return [];
	return table.rows.flatMap((row): [number, number][] => {
		const match = SLASHED.exec(row.cells[at]);
		return match ? [[Number(match[1]), Number(match[2])]] : [];
	});
}

const SLASHED = /^(\d{1,2})[./-](\d{1,2})[./-](\d{4})$/;

function readPerson(
	row: TableRow,
	mapping: Mapping,
	{ dateOrder, nameOrder, today }: Reading
): PersonEntry | { problems: RowProblem[] } {
	const problems: RowProblem[] = [];
	const complain = (key: ColumnKey, message: string) =>
		problems.push({ line: row.line, field: COLUMNS[key].name, message });
	const cell = (key: ColumnKey): string | undefined => {
		const at = mapping[key];
		if (at === null) return undefined;
		const text = row.cells[at];
		if (text.length > COLUMNS[key].most) {
			complain(key, `${COLUMNS[key].name} is longer than ${COLUMNS[key].most} letters.`);
			return '';
		}
		if (!isFormula(text)) return NAMES.has(key) ? inOneLine(text) : text;
		complain(key, `“${text.slice(0, 30)}” is a formula. Put the value itself there.`);
		return '';
	};
	const needed = (key: 'number' | 'family' | 'whole'): string => {
		const before = problems.length;
		const text = cell(key) ?? '';
		if (text === '' && problems.length === before) complain(key, `${COLUMNS[key].name} is empty. Fill it in.`);
		return text;
	};

	const entry: PersonEntry = {
		line: row.line,
		number: mapping.number === null ? '' : needed('number'),
		...(splitsNames(mapping)
			? splitName(needed('whole'), nameOrder ?? 'given_first')
			: // Somebody may have one name alone.
				{ given: cell('given') ?? '', family: needed('family') })
	};
	if (entry.number !== '' && foldNumber(entry.number) === '') complain('number', 'The number has no letter or digit.');
	const groups = cell('groups');
	if (groups !== undefined)
		entry.groups = groups
			.split(/[;|]/)
			.map((name) => name.trim())
			.filter(Boolean);
	const email = cell('email');
	if (email !== undefined) {
		if (email !== '' && !isEmailAddress(email)) complain('email', `“${email.slice(0, 60)}” is not an e-mail address.`);
		entry.email = email || null;
	}
	const birth = cell('birth');
	if (birth !== undefined) {
		const date = birth === '' ? null : readDate(birth, dateOrder);
		if (date === 'open') complain('birth', `“${birth}” can be read two ways. Choose above which comes first.`);
		else if (date === 'wrong') complain('birth', `“${birth}” is not a date. Write 2007-05-31, or 31/05/2007.`);
		else if (date !== null && birthFault(date, today)) complain('birth', birthFault(date, today)!);
		else entry.birth = date;
	}
	const grade = cell('grade');
	if (grade !== undefined) entry.grade = grade || null;
	const userName = cell('userName');
	if (userName !== undefined) entry.userName = userName || null;
	const elsewhere = cell('elsewhere');
	if (elsewhere !== undefined) entry.elsewhere = readYesNo('elsewhere', elsewhere, complain);
	const language = cell('language');
	if (language !== undefined) {
		if (language !== '' && !/^[a-z]{2,3}(-[a-z0-9]{2,8})*$/i.test(language))
			complain('language', `“${language}” is not a language tag. Write en, or pt-PT.`);
		entry.language = language || null;
	}
	const time = readExtraTime(cell('factor'), cell('minutes'), complain);
	if (time) entry.extraTime = time;
	const separate = cell('separateRoom');
	if (separate !== undefined) entry.separateRoom = readYesNo('separateRoom', separate, complain);
	return problems.length > 0 ? { problems } : entry;
}

const NAMES = new Set<ColumnKey>(['given', 'family', 'whole', 'number']);
/** Signs that nobody sees, and that make two names of one: marks of direction, joiners, controls. */
// eslint-disable-next-line no-control-regex -- they are what is looked for.
const UNSEEN = /[\u0000-\u0008\u000e-\u001f\u007f\u00ad\u200b\u200e\u200f\u202a-\u202e\u2060-\u2069\ufeff]/g;

/** Whether a name holds what nobody sees. */
export function hasUnseen(text: string): boolean {
	return text.replace(UNSEEN, '') !== text;
}

function inOneLine(text: string): string {
	return text.replace(UNSEEN, '').replace(/\s+/g, ' ').trim();
}

function readYesNo(key: ColumnKey, text: string, complain: (key: ColumnKey, message: string) => void): boolean {
	if (!/^(|y|yes|true|1|x|n|no|false|0)$/i.test(text)) complain(key, `“${text}” is neither yes nor no.`);
	return /^(y|yes|true|1|x)$/i.test(text);
}

/** Nobody who sits was born before this. */
const EARLIEST_BIRTH = '1900-01-01';

/** What speaks against a date of birth; null: nothing. @param today both dates as `2026-12-08` */
export function birthFault(date: string, today: string): string | null {
	if (date > today) return `${date} is still to come. Check the year.`;
	return date < EARLIEST_BIRTH ? `${date} is before 1900. Check the year.` : null;
}

/** Extra time as offices write it, whichever of the two columns it stands in: `1.25`, `25 %`, `15 min`, `15 min per hour`. */
function readExtraTime(
	factor: string | undefined,
	minutes: string | undefined,
	complain: (key: ColumnKey, message: string) => void
): PersonEntry['extraTime'] {
	if (factor === undefined && minutes === undefined) return undefined;
	const time = { factor: 1, minutes: 0 };
	for (const [key, text] of [
		['factor', factor],
		['minutes', minutes]
	] as const) {
		if (!text || /^(no|none|0|[-–—])$/i.test(text)) continue;
		const read = extraTimeOf(text, key);
		if (typeof read === 'string') complain(key, read);
		else if (read.kind === 'factor') time.factor = read.value;
		else time.minutes = read.value;
	}
	return time;
}

/** What a cell says, or what is wrong with it. */
function extraTimeOf(
	text: string,
	column: 'factor' | 'minutes'
): { kind: 'factor' | 'minutes'; value: number } | string {
	const number = (digits: string) => Number(digits.replace(',', '.'));
	const percent = /^\+?(\d+(?:[.,]\d+)?)\s*(?:%|per ?cent)$/i.exec(text);
	const hourly = /^\+?(\d+)\s*min(?:ute)?s?\.?\s*(?:per|an|each|\/)\s*h(?:our)?$/i.exec(text);
	const spent = /^\+?(\d+)\s*(?:m|min(?:ute)?s?)\.?$/i.exec(text);
	const plain = /^[x×*]?\s*(\d+(?:[.,]\d+)?)\s*[x×]?$/i.exec(text);
	if (percent && number(percent[1]) > 100)
		return `“${text}” can mean ${number(percent[1]) / 100} times the time, or ${number(percent[1])} % more. Write ${number(percent[1]) / 100} or ${1 + number(percent[1]) / 100}.`;
	const factor = percent
		? 1 + number(percent[1]) / 100
		: hourly
			? 1 + number(hourly[1]) / 60
			: plain && (column === 'factor' || !/^\d+$/.test(plain[1]))
				? number(plain[1])
				: null;
	if (factor !== null)
		return factor >= 1 && factor <= 10
			? { kind: 'factor', value: Number(factor.toPrecision(6)) }
			: `“${text}” is not a factor. Time and a half is 1.5, or 50%; without extra time leave it empty.`;
	const minutes = Number(spent?.[1] ?? (column === 'minutes' ? plain?.[1] : undefined));
	return Number.isInteger(minutes) && minutes >= 0 && minutes <= 1_440
		? { kind: 'minutes', value: minutes }
		: column === 'factor'
			? `“${text}” is not a factor. Time and a half is 1.5, or 50%; without extra time leave it empty.`
			: `“${text}” is not a whole number of minutes between 0 and 1440. A share is written as 25 %, a factor as 1.25.`;
}

/** An ISO date from the usual notations; `open` when day and month can't be told apart. */
function readDate(text: string, order: DateOrder | null): string | 'open' | 'wrong' {
	const iso = /^(\d{4})-(\d{1,2})-(\d{1,2})$/.exec(text);
	const slashed = SLASHED.exec(text);
	if (!iso && !slashed) return 'wrong';
	let [year, month, day] = iso ? iso.slice(1).map(Number) : [0, 0, 0];
	if (slashed) {
		const [a, b] = [Number(slashed[1]), Number(slashed[2])];
		const known = a > 12 ? 'day_first' : b > 12 ? 'month_first' : a === b ? 'day_first' : order;
		if (known === null) return 'open';
		[day, month, year] = known === 'day_first' ? [a, b, Number(slashed[3])] : [b, a, Number(slashed[3])];
	}
	const date = new Date(Date.UTC(year, month - 1, day));
	const real = date.getUTCFullYear() === year && date.getUTCMonth() === month - 1 && date.getUTCDate() === day;
	return real ? date.toISOString().slice(0, 10) : 'wrong';
}
