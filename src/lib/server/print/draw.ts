/**
 * What the drawing thread runs, as text: the server is bundled into one program, which has no second file to start.
 * It takes {pdfmakeAt, fonts, title, document} and answers with the bytes.
 */
export const DRAW = `
const { join } = require('node:path');
const { parentPort, workerData } = require('node:worker_threads');
const { pdfmakeAt, fonts, title, document } = workerData;
const pdfmake = require(pdfmakeAt);
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
pdfmake.setLocalAccessPolicy((path) => path.startsWith(fonts));
const grey = () => '#cfc6b0';
const dashed = () => ({ dash: { length: 3 } });
pdfmake.setTableLayouts({
	cutLines: { hLineColor: grey, vLineColor: grey, hLineStyle: dashed, vLineStyle: dashed }
});
const pdf = pdfmake.createPdf({
	pageSize: 'A4',
	pageMargins: [42, 48, 42, 48],
	info: { title, creator: 'Otium' },
	defaultStyle: { font: 'Roboto', fontSize: 10.5, lineHeight: 1.2 },
	styles: { title: { fontSize: 19, bold: true }, quiet: { color: '#5a6660' }, code: { fontSize: 17, bold: true } },
	footer: (page, pages) => ({
		text: title + ' · ' + page + ' of ' + pages,
		alignment: 'center',
		color: '#5a6660',
		fontSize: 8.5
	}),
	...document
});
pdf.getBuffer().then((bytes) => {
	parentPort.postMessage(new Uint8Array(bytes));
});
`;
