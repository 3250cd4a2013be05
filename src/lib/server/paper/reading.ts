import mammoth from 'mammoth';
import { documentText, isArchive, readArchive } from '$core/formats';
import { offer } from '../thread';

export type ReadDocument = { ok: true; text: string; pictures: number } | { ok: false; message: string };

/** A document of words; its pictures are what makes one large. */
const LIMITS = { files: 2_000, bytes: 64 * 1024 * 1024, ratio: 200 };

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
	}
};
export type PaperReading = typeof tasks;

offer(tasks);
