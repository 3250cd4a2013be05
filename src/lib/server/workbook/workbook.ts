import { readSheet } from 'read-excel-file/node';
import { isArchive, readArchive, type TableRow } from '$core/formats';

/** A workbook of words; its pictures are what makes one large. */
const LIMITS = { files: 2_000, bytes: 64 * 1024 * 1024, ratio: 200 };

export type Workbook = { ok: true; header: string[]; rows: TableRow[] } | { ok: false; message: string };

/** Whether a file is a workbook (.xlsx, Office Open XML, ECMA-376) by what is in it, and not by its name. */
export function isWorkbook(bytes: Uint8Array): boolean {
	if (!isArchive(bytes)) return false;
	const unpacked = readArchive(bytes, LIMITS);
	return unpacked.ok && unpacked.files.has('workbook.xml');
}

/** The first sheet of a workbook: its heading, then each row with its line. */
export async function readWorkbook(bytes: Uint8Array): Promise<Workbook> {
	const unpacked = readArchive(bytes, LIMITS);
	if (!unpacked.ok) return unpacked;
	if (!unpacked.files.has('workbook.xml'))
		return { ok: false, message: 'This archive holds no workbook. Save it as .xlsx or .csv.' };
	try {
		const cells = (await readSheet(Buffer.from(bytes))) as unknown[][];
		const rows = cells.map((row, i) => ({ line: i + 1, cells: row.map(inWords) }));
		const heading = rows.findIndex((row) => row.cells.some(Boolean));
		if (heading < 0) return { ok: false, message: 'Its first sheet is empty.' };
		return { ok: true, header: rows[heading].cells, rows: rows.slice(heading + 1) };
	} catch {
		return {
			ok: false,
			message: 'This workbook can’t be read; it may be damaged. Open it, save it again, and send that.'
		};
	}
}

function inWords(cell: unknown): string {
	if (cell instanceof Date) return cell.toISOString().slice(0, 10);
	return cell === null || cell === undefined ? '' : String(cell).trim();
}
