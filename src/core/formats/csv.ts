import { stringify } from 'csv-stringify/sync';
import { isFormula } from './table';

/**
 * Rows as RFC 4180, every cell in quotes, so that no sign inside ends one. What a spreadsheet would run is told to be text
 * (OWASP, CSV injection): at the start of a cell, and of each line and each part of it, as readers differ in where they cut.
 * @param mark with a byte-order mark, by which spreadsheets know UTF-8
 */
export function writeCsv(rows: (string | number | null)[][], { mark = true } = {}): string {
	const safe = rows.map((row) => row.map((cell) => (typeof cell === 'string' ? harmless(cell) : (cell ?? ''))));
	return stringify(safe, { bom: mark, record_delimiter: 'windows', quoted: true, quoted_empty: true });
}

/** Controls other than the line break and the tab have no place in a table; some end a cell for some readers. */
// eslint-disable-next-line no-control-regex -- they are what is looked for.
const CONTROLS = /[\u0000-\u0008\u000b-\u001f\u007f\u0085\u2028\u2029]/g;

/** The cell, so that no part of it is run. */
export function harmless(cell: string): string {
	return cell
		.replace(/\r\n?/g, '\n')
		.replace(CONTROLS, '')
		.split(/(\n|;)/)
		.map((part) => (isFormula(part.trimStart()) ? part.replace(/\S/, "'$&") : part))
		.join('');
}
