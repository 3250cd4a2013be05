import { rowsOf, SHEET_LIMITS, type Cells, type Sheet } from './sheet';
import { readXml } from './xlsx';

/** More empty rows or columns than these in a row are the rest of the sheet. */
const MOST_REPEATED = 1_000;

/**
 * The sheets of a spreadsheet in OpenDocument (ISO/IEC 26300, part 1, 9), each cell as it is shown.
 * @param content `content.xml` @throws Error when it is no XML
 */
export function readOds(content: string): Sheet[] {
	const sheets: Sheet[] = [];
	const hiddenStyles = new Set<string>();
	let style = '';
	let [row, column, repeatedRows, repeatedColumns, count] = [0, 0, 1, 1, 0];
	let cells: Cells = new Map();
	let value: { type: string; attributes: Record<string, string>; text: string; paragraphs: number } | null = null;
	let [isText, isNote] = [false, 0];
	readXml(content, {
		open(name, attributes) {
			if (name === 'style') style = attributes['style:name'] ?? '';
			else if (name === 'table-properties' && attributes['table:display'] === 'false') hiddenStyles.add(style);
			else if (name === 'table') {
				cells = new Map();
				row = 0;
				const isHidden = hiddenStyles.has(attributes['table:style-name'] ?? '');
				sheets.push({ name: attributes['table:name'] ?? '', isHidden, rows: [], told: [] });
			} else if (name === 'table-row') {
				column = 0;
				repeatedRows = Number(attributes['table:number-rows-repeated'] ?? 1);
			} else if (name === 'table-cell' || name === 'covered-table-cell') {
				repeatedColumns = Number(attributes['table:number-columns-repeated'] ?? 1);
				value = { type: attributes['office:value-type'] ?? '', attributes, text: '', paragraphs: 0 };
			} else if (name === 'annotation') isNote++;
			else if (name === 'p' && value && isNote === 0) {
				if (value.paragraphs++ > 0) value.text += '\n';
				isText = true;
			} else if (name === 's' && value && isText)
				value.text += ' '.repeat(Math.min(100, Number(attributes['text:c'] ?? 1)));
		},
		close(name) {
			if (name === 'p') isText = false;
			else if (name === 'annotation') isNote--;
			else if ((name === 'table-cell' || name === 'covered-table-cell') && value) {
				const shown = inWords(value);
				if (shown !== '')
					for (let k = 0; k < Math.min(repeatedColumns, MOST_REPEATED); k++) {
						if (++count > SHEET_LIMITS.cells) throw new Error('too many cells');
						if (!cells.has(row)) cells.set(row, new Map());
						cells.get(row)!.set(column + k, shown);
					}
				column += repeatedColumns;
				value = null;
			} else if (name === 'table-row') {
				const now = cells.get(row);
				if (now)
					for (let k = 1; k < Math.min(repeatedRows, MOST_REPEATED); k++) {
						if ((count += now.size) > SHEET_LIMITS.cells) throw new Error('too many cells');
						cells.set(row + k, new Map(now));
					}
				row += repeatedRows;
			} else if (name === 'table' && sheets.length > 0) sheets.at(-1)!.rows = rowsOf(cells);
		},
		text(text) {
			if (isText && value) value.text += text;
		}
	});
	return sheets;
}

function inWords({
	type,
	attributes,
	text
}: {
	type: string;
	attributes: Record<string, string>;
	text: string;
}): string {
	if (type === 'date')
		return (attributes['office:date-value'] ?? text)
			.replace('T', ' ')
			.replace(/ 00:00(:00)?.*$/, '')
			.slice(0, 16);
	// What is shown keeps zeros before a number, and a share its sign.
	return text.trim();
}
