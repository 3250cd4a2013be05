import { counted } from '../../names';
import type { TableRow } from '../table';
import { readOds } from './ods';
import type { Sheet } from './sheet';
import { readXlsx } from './xlsx';

/** A table out of a workbook: its heading, then each row with its line; and the sheets from which another could be chosen. */
export type Workbook =
	| { ok: true; header: string[]; rows: TableRow[]; told: string[]; sheet: string; sheets: string[] }
	| { ok: false; message: string };

const DAMAGED = 'This workbook can’t be read; it may be damaged. Open it, save it again, and send that.';

/** Whether a file's parts are those of a workbook that can be read: Office Open XML, or OpenDocument. */
export function isWorkbookOf(files: ReadonlyMap<string, unknown>): boolean {
	return files.has('xl/workbook.xml') || (files.has('content.xml') && files.has('mimetype'));
}

/** The older kind of workbook, a compound file (its first eight bytes: [MS-CFB] 2.2, from memory). */
export function isOldWorkbook(bytes: Uint8Array): boolean {
	return [0xd0, 0xcf, 0x11, 0xe0, 0xa1, 0xb1, 0x1a, 0xe1].every((byte, i) => bytes[i] === byte);
}
export const OLD_WORKBOOK =
	'This is a workbook of the older kind (.xls). Open it in the spreadsheet, save it as .xlsx, .ods or .csv, and send that.';

/**
 * Reads one sheet of a workbook. Proposed is the first visible one that looks like a table; its heading is the first row
 * of several words.
 * @param files its parts by their paths @param which the name of a sheet; null: the one that is proposed
 */
export function readSheetOf(files: ReadonlyMap<string, string>, which: string | null): Workbook {
	let sheets: Sheet[];
	try {
		sheets = files.has('xl/workbook.xml') ? readXlsx(files) : readOds(files.get('content.xml') ?? '');
	} catch {
		return { ok: false, message: DAMAGED };
	}
	const filled = sheets.filter(({ rows }) => rows.length > 0);
	const visible = filled.filter(({ isHidden }) => !isHidden);
	const sheet =
		filled.find(({ name }) => name === which) ??
		visible.find((one) => headingOf(one.rows) >= 0) ??
		visible[0] ??
		filled[0];
	if (!sheet) return { ok: false, message: 'Its sheets are empty.' };
	const heading = Math.max(headingOf(sheet.rows), firstOf(sheet.rows));
	const told = [...sheet.told];
	const others = filled.filter((one) => one !== sheet);
	if (others.length > 0)
		told.unshift(
			`This is the sheet “${sheet.name}”. ${others.length === 1 ? 'Another is' : `${counted(others.length, 'other')} are`} left out: ${others.map(({ name, isHidden }) => `“${name}”${isHidden ? ' (hidden)' : ''}`).join(', ')}.`
		);
	const above = sheet.rows.slice(0, heading).flat().filter(Boolean);
	if (above.length > 0)
		told.push(
			`The heading is in line ${heading + 1}. Left out above it: ${above.slice(0, 3).join(', ').slice(0, 120)}.`
		);
	return {
		ok: true,
		header: unique(sheet.rows[heading]),
		rows: sheet.rows.slice(heading + 1).map((cells, i) => ({ line: heading + 2 + i, cells })),
		told,
		sheet: sheet.name,
		sheets: filled.map(({ name }) => name)
	};
}

/** The first row that names several columns; −1: none does. */
function headingOf(rows: string[][]): number {
	return rows.findIndex((row) => new Set(row.filter(Boolean)).size > 1);
}

function firstOf(rows: string[][]): number {
	return rows.findIndex((row) => row.some(Boolean));
}

/** A heading that stands over several columns, as joined cells do, is told apart by a number. */
function unique(header: string[]): string[] {
	return header.map((title, i) => {
		const before = header.slice(0, i).filter((other) => other === title).length;
		return title === '' || before === 0 ? title : `${title} (${before + 1})`;
	});
}
