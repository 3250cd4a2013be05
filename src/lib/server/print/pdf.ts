import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import pdfmake from 'pdfmake';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';

const fonts = join(dirname(createRequire(import.meta.url).resolve('pdfmake/package.json')), 'fonts', 'Roboto');
pdfmake.setFonts({
	Roboto: {
		normal: join(fonts, 'Roboto-Regular.ttf'),
		bold: join(fonts, 'Roboto-Medium.ttf'),
		italics: join(fonts, 'Roboto-Italic.ttf'),
		bolditalics: join(fonts, 'Roboto-MediumItalic.ttf')
	}
});
// A document names nothing to be fetched, and what somebody wrote into a name must not make it fetch.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path: string) => path.startsWith(fonts));

/** The document as a PDF. */
export async function toPdf(title: string, document: TDocumentDefinitions): Promise<Uint8Array> {
	const pdf = pdfmake.createPdf({
		pageSize: 'A4',
		pageMargins: [42, 48, 42, 48],
		info: { title, creator: 'Otium' },
		defaultStyle: { font: 'Roboto', fontSize: 10.5, lineHeight: 1.2 },
		styles: { title: { fontSize: 19, bold: true }, quiet: { color: '#5a6660' }, code: { fontSize: 17, bold: true } },
		footer: (page, pages) => ({
			text: `${title} · ${page} of ${pages}`,
			alignment: 'center',
			color: '#5a6660',
			fontSize: 8.5
		}),
		...document
	});
	return new Uint8Array(await pdf.getBuffer());
}
