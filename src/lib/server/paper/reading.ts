import { strToU8, zipSync } from 'fflate';
import mammoth from 'mammoth';
import { nanoid } from 'nanoid';
import { documentText, isArchive, readArchive } from '$core/formats';
import type { Paper } from '$core/paper';
import { readPackage, writePackage, type ReadPackage } from '$core/qti';
import { offer } from '../thread';

export type ReadDocument = { ok: true; text: string; pictures: number } | { ok: false; message: string };

/** A document of words; its pictures are what makes one large. */
const LIMITS = { files: 2_000, bytes: 64 * 1024 * 1024, ratio: 200 };

/** A package of 500 questions has a file for each, and pictures. */
const PACKAGE_LIMITS = { files: 2_000, bytes: 32 * 1024 * 1024, ratio: 200 };

const tasks = {
	/** The text of a word processor's document (.docx, Office Open XML), in the form in which questions are read. */
	async document({ bytes }: { bytes: Uint8Array }): Promise<ReadDocument> {
		if (!isArchive(bytes))
			return { ok: false, message: 'This is not a .docx document. Save it as .docx, or paste its text.' };
		const unpacked = readArchive(bytes, LIMITS);
		if (!unpacked.ok) return unpacked;
		if (!unpacked.files.has('document.xml'))
			return { ok: false, message: 'This archive holds no document. Save it as .docx, or paste its text.' };
		let pictures = 0;
		try {
			const { value } = await mammoth.convertToHtml(
				{ buffer: Buffer.from(bytes) },
				{
					convertImage: mammoth.images.imgElement(async () => {
						pictures++;
						return { src: '' };
					})
				}
			);
			return { ok: true, text: documentText(value), pictures };
		} catch {
			return {
				ok: false,
				message: 'This document can’t be read; it may be damaged. Open it, save it again, and send that.'
			};
		}
	},
	/** A QTI package as a paper. Every text in it is read as UTF-8; what is not is told as XML that cannot be read. */
	qti({ bytes }: { bytes: Uint8Array }): ReadPackage {
		if (!isArchive(bytes)) return { ok: false, message: 'This is not a zip. Send the QTI package as it was exported.' };
		const unpacked = readArchive(bytes, PACKAGE_LIMITS, true);
		if (!unpacked.ok) return unpacked;
		const texts = [...unpacked.files].filter(([path]) => /\.(xml|svg)$/i.test(path));
		const decoder = new TextDecoder('utf-8');
		return readPackage(new Map(texts.map(([path, content]) => [path, decoder.decode(content)])), () => nanoid(10));
	},
	/** A paper as a QTI package, zipped. */
	pack({ paper, version }: { paper: Paper; version: '3.0' | '2.1' }): Uint8Array {
		const files = [...writePackage(paper, version)].map(([path, content]) => [path, strToU8(content)] as const);
		return zipSync(Object.fromEntries(files));
	}
};
export type PaperReading = typeof tasks;

offer(tasks);
