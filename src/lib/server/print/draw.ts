import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { TDocumentDefinitions } from 'pdfmake/interfaces';
import { offer } from '../thread';

const require = createRequire(import.meta.url);
const pdfmake: typeof import('pdfmake') = require('pdfmake');
const fonts = join(dirname(require.resolve('pdfmake/package.json')), 'fonts', 'Roboto');
const font = (file: string) => join(fonts, `Roboto-${file}.ttf`);

pdfmake.setFonts({
	Roboto: {
		normal: font('Regular'),
		bold: font('Medium'),
		italics: font('Italic'),
		bolditalics: font('MediumItalic')
	}
});
// A document names nothing to be fetched, and what somebody wrote into a name must not make it fetch.
pdfmake.setUrlAccessPolicy(() => false);
pdfmake.setLocalAccessPolicy((path) => path.startsWith(fonts));
const grey = () => '#cfc6b0';
const dashed = () => ({ dash: { length: 3 } });
pdfmake.setTableLayouts({ cutLines: { hLineColor: grey, vLineColor: grey, hLineStyle: dashed, vLineStyle: dashed } });

const tasks = {
	/** @param document data alone: what it needs of functions is here */
	async pdf({ title, document }: { title: string; document: TDocumentDefinitions }): Promise<Uint8Array> {
		const drawn = pdfmake.createPdf({
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
		return new Uint8Array(await drawn.getBuffer());
	}
};
export type Drawing = typeof tasks;

offer(tasks);
