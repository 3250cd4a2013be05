import { strToU8, zipSync } from 'fflate';

const REL = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const PACKAGE = 'http://schemas.openxmlformats.org/package/2006';
const MAIN = 'http://schemas.openxmlformats.org/spreadsheetml/2006/main';

/**
 * The least that is a workbook (ECMA-376, part 1, 18, from memory), with one sheet of these rows. Numbers are numbers,
 * texts stand in their cells.
 */
export function workbook(rows: (string | number | null)[][], more: Record<string, string> = {}): Uint8Array {
	const escaped = (text: string) => text.replaceAll('&', '&amp;').replaceAll('<', '&lt;');
	const cell = (value: string | number | null, column: number, row: number) => {
		const at = `${String.fromCharCode(65 + column)}${row + 1}`;
		if (value === null) return '';
		if (typeof value === 'number') return `<c r="${at}"><v>${value}</v></c>`;
		return `<c r="${at}" t="inlineStr"><is><t xml:space="preserve">${escaped(value)}</t></is></c>`;
	};
	const body = rows
		.map((cells, row) => `<row r="${row + 1}">${cells.map((value, i) => cell(value, i, row)).join('')}</row>`)
		.join('');
	const files: Record<string, string> = {
		'[Content_Types].xml': `<Types xmlns="${PACKAGE}/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/></Types>`,
		'_rels/.rels': `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="r1" Type="${REL}/officeDocument" Target="xl/workbook.xml"/></Relationships>`,
		'xl/workbook.xml': `<workbook xmlns="${MAIN}" xmlns:r="${REL}"><sheets><sheet name="Questions" sheetId="1" r:id="r1"/></sheets></workbook>`,
		'xl/_rels/workbook.xml.rels': `<Relationships xmlns="${PACKAGE}/relationships"><Relationship Id="r1" Type="${REL}/worksheet" Target="worksheets/sheet1.xml"/></Relationships>`,
		'xl/worksheets/sheet1.xml': `<worksheet xmlns="${MAIN}"><sheetData>${body}</sheetData></worksheet>`,
		...more
	};
	return zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));
}
