import { parse } from 'csv-parse/sync';
import fc from 'fast-check';
import { expect, it } from 'vitest';
import { isFormula, writeCsv } from '.';

const cellsOf = (csv: string, delimiter = ','): string[][] =>
	parse(csv, { bom: true, delimiter, relax_column_count: true, relax_quotes: true });

it.each([
	['a formula', '=1+1', "'=1+1"],
	['one behind a line break', 'a\n=1+1', "a\n'=1+1"],
	['one behind an old line break', 'a\r=1+1', "a\n'=1+1"],
	['one behind a semicolon', 'Ann;=1+1', "Ann;'=1+1"],
	['one behind spaces', '  @SUM(A1)', "  '@SUM(A1)"],
	['a full-width sign', '＝1+1', "'＝1+1"],
	['a link', '=HYPERLINK("https://evil.example")', '\'=HYPERLINK("https://evil.example")'],
	['a signed number', '-12.5', '-12.5'],
	['a telephone number', '+351 912 345 678', '+351 912 345 678'],
	['a null and a bell', 'An\0n\u0007', 'Ann'],
	['a name', "Zoë O'Briain-Łukasiewicz", "Zoë O'Briain-Łukasiewicz"]
])('%s is written so that nothing runs', (_, cell, written) => {
	expect(cellsOf(writeCsv([[cell]]))).toEqual([[written]]);
});

it('every cell is in quotes, and rows end as RFC 4180 says', () => {
	expect(writeCsv([['a', 'b "c"', 3, null]], { mark: false })).toBe('"a","b ""c""","3",""\r\n');
});

it('whatever is written, no line or part of a cell begins a formula, and as many rows and cells come back', () => {
	const nasty = fc.string({
		unit: fc.constantFrom('=', '+', '-', '@', '\n', '\r', ';', ',', '"', ' ', 'a', '1', '＝', '\t')
	});
	fc.assert(
		fc.property(fc.array(fc.tuple(nasty, nasty), { minLength: 1, maxLength: 5 }), (rows) => {
			const back = cellsOf(writeCsv(rows));
			expect(back.map((row) => row.length)).toEqual(rows.map(() => 2));
			for (const part of back.flat().flatMap((cell) => cell.split(/[\n;]/)))
				expect(isFormula(part.trimStart())).toBe(false);
		})
	);
});
