import { getDocument, GlobalWorkerOptions } from 'pdfjs-dist/legacy/build/pdf.mjs';
import worker from 'pdfjs-dist/legacy/build/pdf.worker.min.mjs?url';

GlobalWorkerOptions.workerSrc = worker;

/** A page as candidates will see it, and its words for whoever can't. */
export type PdfPage = { picture: Blob; words: string };

/** Wide enough to read small print at twice the size of a panel; A4 comes to about 1,400 by 2,000. */
const WIDTH = 1_400;
/** As much as a description may have. */
const MOST_WORDS = 2_000;

/**
 * The pages of a PDF as pictures, one after the other. Drawn by the author's browser, so that a candidate's needs to show pictures alone.
 * @throws Error it is no PDF, it is locked by a password, or it has more pages than `most`
 */
export async function* pdfPages(file: Blob, most: number): AsyncGenerator<PdfPage & { of: number }> {
	const task = getDocument({ data: new Uint8Array(await file.arrayBuffer()), disableFontFace: true, enableXfa: false });
	try {
		const pdf = await task.promise;
		if (pdf.numPages > most) throw new Error(`It has ${pdf.numPages} pages; at most ${most} can lie beside a paper.`);
		for (let number = 1; number <= pdf.numPages; number++) {
			const page = await pdf.getPage(number);
			const viewport = page.getViewport({ scale: WIDTH / page.getViewport({ scale: 1 }).width });
			const canvas = document.createElement('canvas');
			canvas.width = Math.round(viewport.width);
			canvas.height = Math.round(viewport.height);
			await page.render({ canvas, viewport }).promise;
			const { items } = await page.getTextContent();
			const words = items.map((item) => ('str' in item ? item.str : '')).join(' ');
			const picture = await new Promise<Blob | null>((done) => canvas.toBlob(done, 'image/png'));
			if (!picture) throw new Error(`Page ${number} can’t be drawn.`);
			yield { picture, words: words.replace(/\s+/g, ' ').trim().slice(0, MOST_WORDS), of: pdf.numPages };
		}
	} finally {
		await task.destroy();
	}
}
