import { CsvError, parse } from 'csv-parse/sync';

/** A row of a file, with the line on which it begins: what a person looks for when something is wrong with it. */
export type TableRow = { line: number; cells: string[] };
/** What is wrong with a row, and what to do about it. `field` is the column, when it is one column's fault. */
export type RowProblem = { line: number; field: string | null; message: string };
export type Table = { separator: string; header: string[]; rows: TableRow[]; problems: RowProblem[] };

export const SEPARATORS = { ',': 'comma', ';': 'semicolon', '\t': 'tab', '|': 'bar' } as const;

/**
 * No list of people comes near any; a row of commas is a hundred times smaller than the table that it becomes, and a cell
 * holds what the cell of a workbook may (Office Open XML, as spreadsheets limit it).
 */
export const TABLE_LIMITS = { columns: 500, cells: 2_000_000, letters: 32_767 };

/**
 * Reads comma-separated values (RFC 4180: quotes doubled inside quotes, line breaks inside quotes, a header line), with
 * the other separators that spreadsheets write. Rows of the wrong width become problems, not losses.
 */
export function readTable(text: string, separator = guessSeparator(text), limits = TABLE_LIMITS): Table {
	const [before, rest] = aboveHeading(text);
	const empty: Table = { separator, header: [], rows: [], problems: [] };
	let read: { record: string[]; info: { lines: number } }[];
	try {
		read = parse(rest, {
			delimiter: separator,
			bom: true,
			info: true,
			relax_column_count: true,
			skip_empty_lines: true,
			trim: true,
			// A value without an end is read no further than this.
			max_record_size: limits.letters * limits.columns
		}) as never;
	} catch (error) {
		if (!(error instanceof CsvError)) throw error;
		const line = before + (error.code === 'CSV_QUOTE_NOT_CLOSED' ? openQuoteIn(rest) : Number(error.lines ?? 1));
		const message =
			'From this line on the file can’t be read: a quotation mark is not closed, or is inside a value. Put the value in quotes and double those within.';
		return { ...empty, problems: [{ line, field: null, message }] };
	}
	if (read.length === 0) return empty;

	const header = read[0].record;
	const refuse = (message: string): Table => ({ ...empty, problems: [{ line: 1, field: null, message }] });
	if (header.length > limits.columns)
		return refuse(
			`The heading has ${header.length} columns; the most is ${limits.columns}. Leave out what is not needed.`
		);
	if (header.length * read.length > limits.cells)
		return refuse(`This table has ${read.length} rows of ${header.length} columns. Split it, or leave out columns.`);
	const table: Table = { ...empty, header };
	for (const { record, info } of read.slice(1)) {
		// The parser tells the line on which a record ends.
		const line = before + info.lines - record.join('').split('\n').length + 1;
		const long = record.findIndex((cell) => cell.length > limits.letters);
		if (long >= 0) {
			const message = `A value has ${record[long].length} letters; the most is ${limits.letters}. Is a quotation mark not closed?`;
			table.problems.push({ line, field: header[long] ?? null, message });
			continue;
		}
		if (record.every((cell) => cell === '')) continue;
		if (record.length > header.length && record.slice(header.length).some((cell) => cell !== '')) {
			const message = `It has ${record.length} values, the heading ${header.length}. Put values that hold a ${SEPARATORS[separator as keyof typeof SEPARATORS] ?? 'separator'} in quotes.`;
			table.problems.push({ line, field: null, message });
		} else table.rows.push({ line, cells: header.map((_, i) => record[i] ?? '') });
	}
	return table;
}

/** Lines above the heading that name the separator (`sep=;`) or are remarks (`# so`): how many, and the text below them. */
function aboveHeading(text: string): [number, string] {
	let [count, at] = [0, 0];
	for (;;) {
		const line = /^\uFEFF?(?:sep=.|#.*|\s*)(\r\n|\n|\r)/i.exec(text.slice(at, at + 1_000));
		if (!line) return [count, text.slice(at)];
		at += line[0].length;
		count++;
	}
}

/** The line, from 1, on which the quotation mark stands that is never closed. */
function openQuoteIn(text: string): number {
	let [line, opened, isOpen] = [1, 1, false];
	for (const sign of text) {
		if (sign === '\n') line++;
		else if (sign === '"' && (isOpen = !isOpen)) opened = line;
	}
	return opened;
}

/** The separator that is named above the heading, or else the one that the heading uses most, outside of quotes. */
function guessSeparator(whole: string): string {
	const named = /^\uFEFF?sep=([,;\t|])\s*[\r\n]/i.exec(whole)?.[1];
	if (named) return named;
	const [, text] = aboveHeading(whole);
	const heading = (text.split(/\r?\n/, 1)[0] ?? '').replace(/"[^"]*"/g, '');
	const count = (separator: string) => heading.split(separator).length - 1;
	return Object.keys(SEPARATORS).reduce((best, one) => (count(one) > count(best) ? one : best), ',');
}

/** The signs that begin a formula, also as they are written full width in East Asia. */
const RUNS = /^[=+\-@\t\r＝＋－＠]/;

/** Whether a spreadsheet would run this cell instead of showing it. A signed number is no formula. */
export function isFormula(cell: string): boolean {
	return RUNS.test(cell) && !/^[+-]?[\d.,\s]+$/.test(cell);
}
