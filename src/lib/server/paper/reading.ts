import { strToU8, zipSync } from 'fflate';
import { nanoid } from 'nanoid';
import { readWordDocument } from '$core/document';
import { decodeXml, isArchive, readArchive, readTable, readText, type TableRow } from '$core/formats';
import type { Paper, Question } from '$core/paper';
import { readPackage, writeBank, writePackage, type ReadPackage } from '$core/qti';
import { offer } from '../thread';
import { MOST_BANKED } from './bank-file';
import { isWorkbook, readWorkbook } from '../workbook';

/** A package that was read, with the files that its questions show and play, each under the name that they give it. */
export type ReadQti =
	| (Extract<ReadPackage, { ok: true }> & { media: { file: string; path: string; bytes: Uint8Array }[] })
	| Extract<ReadPackage, { ok: false }>;
export type ReadDocument = { ok: true; text: string; told: string[] } | { ok: false; message: string };

/** A document of words; its pictures are what makes one large. */
const LIMITS = { files: 2_000, bytes: 64 * 1024 * 1024, ratio: 200 };

/** A package of 500 questions has a file for each, and pictures. */
const PACKAGE_LIMITS = { files: 2_000, bytes: 32 * 1024 * 1024, ratio: 200 };

/** A file of a bank: its questions, and what they show and play. */
const BANK_LIMITS = { files: 12_000, bytes: 128 * 1024 * 1024, ratio: 200 };

/** A table as rows of text: its heading first, then each row with its line. */
export type ReadSheet =
	| { ok: true; header: string[]; rows: TableRow[]; told: string[] }
	| { ok: false; message: string };

/** A sheet of questions has some columns and as many rows as a bank has questions. */
const SHEET = { columns: 200, rows: 5_000 };

const tasks = {
	/** A sheet of a workbook (.xlsx, Office Open XML, or .ods, OpenDocument), or comma-separated values. */
	sheet({ bytes }: { bytes: Uint8Array }): ReadSheet {
		if (!isWorkbook(bytes) && !isArchive(bytes)) return readValues(bytes);
		const read = readWorkbook(bytes);
		return read.ok ? within(read) : read;
	},
	/** The text of a word processor's document (.docx, Office Open XML), in the form in which questions are read. */
	document({ bytes }: { bytes: Uint8Array }): ReadDocument {
		if (!isArchive(bytes))
			return { ok: false, message: 'This is not a .docx document. Save it as .docx, or paste its text.' };
		const unpacked = readArchive(bytes, LIMITS, true);
		if (!unpacked.ok) return unpacked;
		if (![...unpacked.files.keys()].some((path) => path.startsWith('word/')))
			return { ok: false, message: 'This archive holds no document. Save it as .docx, or paste its text.' };
		const decoder = new TextDecoder('utf-8');
		const parts = [...unpacked.files].filter(([path]) => /\.(xml|rels)$/.test(path));
		try {
			return {
				ok: true,
				...readWordDocument(new Map(parts.map(([path, content]) => [path, decoder.decode(content)])))
			};
		} catch {
			return {
				ok: false,
				message: 'This document can’t be read; it may be damaged. Open it, save it again, and send that.'
			};
		}
	},
	/** A QTI package as a paper. Each text in it is read in the encoding that it declares. */
	qti({ bytes, isBank }: { bytes: Uint8Array; isBank: boolean }): ReadQti {
		if (!isArchive(bytes)) return { ok: false, message: 'This is not a zip. Send the QTI package as it was exported.' };
		const unpacked = readArchive(bytes, isBank ? BANK_LIMITS : PACKAGE_LIMITS, true);
		if (!unpacked.ok) return unpacked;
		const texts = [...unpacked.files].filter(([path]) => /\.(xml|svg)$/i.test(path));
		const read = readPackage(
			new Map(texts.map(([path, content]) => [path, decodeXml(content)])),
			() => nanoid(10),
			(path) => unpacked.files.has(path),
			isBank ? MOST_BANKED : undefined
		);
		if (!read.ok) return read;
		const media = Object.entries(read.files).map(([file, path]) => ({ file, path, bytes: unpacked.files.get(path)! }));
		return { ...read, media };
	},
	/** A paper as a QTI package, zipped. @param media the files that its questions show and play, by their paths in it */
	pack({
		paper,
		version,
		media
	}: {
		paper: Paper;
		version: '3.0' | '2.1';
		media: Record<string, Uint8Array>;
	}): Uint8Array {
		const files = [...writePackage(paper, version)].map(([path, content]) => [path, strToU8(content)] as const);
		return zipSync({ ...Object.fromEntries(files), ...media });
	},
	/** Questions of the bank, as they are stored, as a QTI package of items alone. */
	packBank({ contents, media }: { contents: string[]; media: Record<string, Uint8Array> }): Uint8Array {
		const questions = contents.map((content) => JSON.parse(content) as Question);
		const files = [...writeBank(questions)].map(([path, content]) => [path, strToU8(content)] as const);
		return zipSync({ ...Object.fromEntries(files), ...media });
	}
};

function readValues(bytes: Uint8Array): ReadSheet {
	const read = readText(bytes);
	if (!read.ok) return read;
	const { header, rows, problems } = readTable(read.text);
	if (header.length === 0) return { ok: false, message: problems[0]?.message ?? 'There is no row in it.' };
	const told = problems.map(({ line, message }) => `Line ${line}: ${message}`);
	return within({ header, rows, told: read.note ? [read.note, ...told] : told });
}

function within({ header, rows, told }: { header: string[]; rows: TableRow[]; told: string[] }): ReadSheet {
	const written = rows.filter(({ cells }) => cells.some(Boolean));
	if (header.length > SHEET.columns || written.length > SHEET.rows)
		return { ok: false, message: `It has more than ${SHEET.columns} columns or ${SHEET.rows} rows. Send it in parts.` };
	return { ok: true, header, rows: written, told };
}

export type PaperReading = typeof tasks;

offer(tasks);
