import {
	isArchive,
	isOldWorkbook,
	isWorkbookOf,
	OLD_WORKBOOK,
	readArchive,
	readSheetOf,
	type Workbook
} from '$core/formats';

/** A workbook of words; its pictures are what makes one large. */
const LIMITS = { files: 2_000, bytes: 64 * 1024 * 1024, ratio: 200 };

/** Whether a file is a workbook (Office Open XML or OpenDocument) by what is in it, and not by its name. */
export function isWorkbook(bytes: Uint8Array): boolean {
	if (isOldWorkbook(bytes)) return true;
	if (!isArchive(bytes)) return false;
	const unpacked = readArchive(bytes, LIMITS, true);
	return unpacked.ok && isWorkbookOf(unpacked.files);
}

/** One sheet of a workbook: its heading, then each row with its line. @param which its name; null: the one that is proposed */
export function readWorkbook(bytes: Uint8Array, which: string | null = null): Workbook {
	if (isOldWorkbook(bytes)) return { ok: false, message: OLD_WORKBOOK };
	const unpacked = readArchive(bytes, LIMITS, true);
	if (!unpacked.ok) return unpacked;
	if (!isWorkbookOf(unpacked.files))
		return { ok: false, message: 'This archive holds no workbook. Save it as .xlsx, .ods or .csv.' };
	const decoder = new TextDecoder('utf-8');
	const parts = [...unpacked.files].filter(([path]) => /\.(xml|rels)$/.test(path));
	return readSheetOf(new Map(parts.map(([path, content]) => [path, decoder.decode(content)])), which);
}
