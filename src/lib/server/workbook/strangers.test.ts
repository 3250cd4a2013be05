import { readFileSync } from 'node:fs';
import { describe, expect, it } from 'vitest';
import { readTable } from '$core/formats';
import { readWorkbook } from '.';

// How these files were made, and by what, stands beside them.
const file = (name: string) => readFileSync(new URL(`../testing/strangers/${name}`, import.meta.url));
const workbook = (name: string, which: string | null = null) => {
	const read = readWorkbook(new Uint8Array(file(name)), which);
	return read.ok ? { header: read.header, rows: read.rows.map(({ cells }) => cells), told: read.told } : read;
};

describe('workbooks that other programs made', () => {
	it('a number keeps the zeros with which it is shown', () =>
		expect(workbook('leading_zeros.xlsx')).toMatchObject({
			header: ['No', 'Name', 'Form'],
			rows: [
				['00007', 'Lee, Ann', '10A'],
				['00042', 'van der Berg, Jan Willem', '10A'],
				['00100', "O'Neil, Séan", '10A'],
				['00101', 'Sting', '10A']
			],
			told: []
		}));

	it('no column is lost under a joined heading', () =>
		expect(workbook('merged_head.xlsx')).toMatchObject({
			header: ['Candidate number', 'Name', 'Name (2)'],
			rows: [['XA-2', 'Ann', 'Lee']],
			told: ['What stands in joined cells is read in each of them.']
		}));

	it('a sheet of notes is not taken for the table, and the others are named', () => {
		expect(workbook('notes_first.xlsx')).toMatchObject({
			told: [expect.stringContaining('This is the sheet “Pupils”. Another is left out: “Notes”.')]
		});
		expect(workbook('two_sheets.xlsx')).toMatchObject({
			rows: [['XB-2', 'Bo', 'Mo']],
			told: [expect.stringContaining('“Year 10”')]
		});
		expect(workbook('two_sheets.xlsx', 'Year 11')).toMatchObject({ told: [expect.stringContaining('“Year 11”')] });
	});

	it.each(['office.xlsx', 'office.ods'])(
		'%s: days, times, shares, errors and what is hidden, as they are shown',
		(name) => {
			const read = workbook(name) as { header: string[]; rows: string[][]; told: string[] };
			expect(read.header).toEqual(['Number', 'Born', 'Door', 'Share', 'Broken']);
			expect(read.rows[0].slice(0, 3)).toEqual(['007', '2010-04-03', '09:30']);
			expect(read.rows[0][3].replace(/\s/g, '')).toBe('25%');
			expect(read.rows[1].slice(0, 3)).toEqual(['042', '2009-12-31', '10:00']);
			if (name.endsWith('xlsx')) expect(read.told.join(' ')).toMatch(/an error and is read as empty: E2/);
		}
	);

	it('one of the older kind is refused with what to do', () =>
		expect(workbook('office.xls')).toMatchObject({ ok: false, message: expect.stringContaining('save it as .xlsx') }));
});

describe('comma-separated values that other programs made', () => {
	const table = (name: string) => readTable(file(name).toString('utf-8'));

	it('with a line that names the separator, and with remarks above the heading; lines are counted as they stand', () => {
		expect(table('sep_line.csv')).toMatchObject({
			separator: ';',
			header: ['Candidate number', 'Given name', 'Family name'],
			rows: [{ line: 3, cells: ['CX-1', 'A', 'B'] }]
		});
		expect(table('comment.csv')).toMatchObject({ rows: [{ line: 3, cells: ['CX-2', 'A', 'B'] }] });
	});

	it('a quotation mark that is never closed is told where it stands, not where the file ends', () => {
		const rows = Array.from({ length: 1_000 }, (_, i) => `C${i},A,B`);
		expect(readTable(`Number,Given,Family\nC,"A,B\n${rows.join('\n')}`).problems[0].line).toBe(2);
	});
});
