import { createRequire } from 'node:module';
import { dirname, join } from 'node:path';
import type { Content, TDocumentDefinitions } from 'pdfmake/interfaces';
import { offer } from '../thread';
import { inOtherScripts } from './other-scripts';

const require = createRequire(import.meta.url);
const pdfmake: typeof import('pdfmake') = require('pdfmake');
const fonts = join(dirname(require.resolve('pdfmake/package.json')), 'fonts', 'Roboto');
const font = (file: string) => join(fonts, `Roboto-${file}.ttf`);
/** Neither script leans. */
const noto = (script: string, weight: number) =>
	join(
		dirname(require.resolve(`@fontsource/noto-sans-${script}/package.json`)),
		'files',
		`noto-sans-${script}-${script}-${weight}-normal.woff`
	);
const family = (script: string) => ({
	normal: noto(script, 400),
	bold: noto(script, 700),
	italics: noto(script, 400),
	bolditalics: noto(script, 700)
});
const others = { Hebrew: family('hebrew'), Arabic: family('arabic') };

pdfmake.setFonts({
	...others,
	Roboto: {
		normal: font('Regular'),
		bold: font('Medium'),
		italics: font('Italic'),
		bolditalics: font('MediumItalic')
	}
});
// A document names nothing to be fetched, and what somebody wrote into a name must not make it fetch.
pdfmake.setUrlAccessPolicy(() => false);
const known = new Set(Object.values(others).flatMap((one) => Object.values(one)));
pdfmake.setLocalAccessPolicy((path) => path.startsWith(fonts) || known.has(path));
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
				text: inOtherScripts([`${title} · ${page} of ${pages}`]) as Content[],
				alignment: 'center',
				color: '#5a6660',
				fontSize: 8.5
			}),
			...document,
			content: inOtherScripts(document.content) as TDocumentDefinitions['content']
		});
		return new Uint8Array(await drawn.getBuffer());
	}
};
export type Drawing = typeof tasks;

offer(tasks);
