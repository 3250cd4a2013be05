import { Parser } from 'saxen';
import { counted } from '../../names';
import { numberInWords, shownAs, type Shown } from './number-format';
import { columnOf, letterOf, rowsOf, SHEET_LIMITS, type Cells, type Sheet } from './sheet';

type Attributes = Record<string, string>;
type Handlers = {
	open?: (name: string, attributes: Attributes) => void;
	close?: (name: string) => void;
	text?: (text: string) => void;
};

/** Reads XML as it comes; names without their prefix. @throws Error when it is none */
export function readXml(xml: string, { open, close, text }: Handlers): void {
	const parser = new Parser();
	const bare = (name: string) => name.slice(name.indexOf(':') + 1);
	if (open)
		parser.on('openTag', (name, attributes, decode) => {
			const read: Attributes = {};
			for (const [key, value] of Object.entries(attributes() as Attributes)) read[key] = decode(value);
			open(bare(name), read);
		});
	if (close) parser.on('closeTag', (name) => close(bare(name)));
	if (text) {
		parser.on('text', (value, decode) => text(decode(value)));
		parser.on('cdata', (value) => text(value));
	}
	parser.on('error', (error) => {
		throw error;
	});
	parser.parse(xml);
}

/**
 * The sheets of a workbook (SpreadsheetML, ECMA-376 part 1, 18), each cell as it is shown.
 * @param files the parts of the workbook by their paths
 * @throws Error when it is no workbook, or a part is no XML
 */
export function readXlsx(files: ReadonlyMap<string, string>): Sheet[] {
	const book = files.get('xl/workbook.xml');
	if (book === undefined) throw new Error('no workbook');
	const listed: { name: string; id: string; isHidden: boolean }[] = [];
	let is1904 = false;
	readXml(book, {
		open(name, attributes) {
			if (name === 'workbookPr') is1904 = /^(1|true)$/.test(attributes.date1904 ?? '');
			if (name === 'sheet')
				listed.push({
					name: attributes.name ?? '',
					id: attributes['r:id'] ?? '',
					isHidden: (attributes.state ?? 'visible') !== 'visible'
				});
		}
	});
	const paths = new Map<string, string>();
	readXml(files.get('xl/_rels/workbook.xml.rels') ?? '<a/>', {
		open(name, { Id, Target }) {
			if (name === 'Relationship' && Id && Target)
				paths.set(Id, Target.startsWith('/') ? Target.slice(1) : `xl/${Target.replace(/^\.\//, '')}`);
		}
	});
	const strings = stringsOf(files.get('xl/sharedStrings.xml'));
	const looks = looksOf(files.get('xl/styles.xml'));
	return listed.flatMap(({ name, id, isHidden }) => {
		const xml = files.get(paths.get(id) ?? '');
		// A sheet of a chart has no cells.
		return xml === undefined ? [] : [{ name, isHidden, ...sheetOf(xml, strings, looks, is1904) }];
	});
}

function stringsOf(xml: string | undefined): string[] {
	const strings: string[] = [];
	if (xml === undefined) return strings;
	let [isText, isReading] = [false, 0];
	readXml(xml, {
		open(name) {
			if (name === 'si') strings.push('');
			// How a word is read aloud stands beside it, and is not shown.
			if (name === 'rPh') isReading++;
			isText = name === 't' && isReading === 0;
		},
		close(name) {
			if (name === 'rPh') isReading--;
			isText = false;
		},
		text(text) {
			if (isText) strings[strings.length - 1] += text;
		}
	});
	return strings;
}

function looksOf(xml: string | undefined): Shown[] {
	const codes = new Map<number, string>();
	const looks: Shown[] = [];
	let isCells = false;
	if (xml !== undefined)
		readXml(xml, {
			open(name, attributes) {
				if (name === 'numFmt') codes.set(Number(attributes.numFmtId), attributes.formatCode ?? '');
				if (name === 'cellXfs') isCells = true;
				if (name === 'xf' && isCells) {
					const id = Number(attributes.numFmtId ?? 0);
					looks.push(shownAs(id, codes.get(id)));
				}
			},
			close(name) {
				if (name === 'cellXfs') isCells = false;
			}
		});
	return looks;
}

function sheetOf(xml: string, strings: string[], looks: Shown[], is1904: boolean): Pick<Sheet, 'rows' | 'told'> {
	const cells: Cells = new Map();
	const faults: string[] = [];
	const merged: string[] = [];
	let [row, column, count, hiddenRows, hiddenColumns] = [-1, -1, 0, 0, 0];
	let cell: { type: string; look: Shown; value: string } | null = null;
	let isValue = false;
	readXml(xml, {
		open(name, attributes) {
			if (name === 'row') {
				row = attributes.r ? Number(attributes.r) - 1 : row + 1;
				column = -1;
				if (/^(1|true)$/.test(attributes.hidden ?? '')) hiddenRows++;
			} else if (name === 'col' && /^(1|true)$/.test(attributes.hidden ?? ''))
				hiddenColumns += Math.min(Number(attributes.max), SHEET_LIMITS.columns) - Number(attributes.min) + 1;
			else if (name === 'c') {
				column = attributes.r ? columnOf(attributes.r) : column + 1;
				cell = { type: attributes.t ?? 'n', look: looks[Number(attributes.s ?? -1)] ?? null, value: '' };
			} else if (name === 'mergeCell' && merged.length < 10_000) merged.push(attributes.ref ?? '');
			isValue = name === 'v' || (name === 't' && cell?.type === 'inlineStr');
		},
		close(name) {
			isValue = false;
			if (name !== 'c' || cell === null) return;
			const shown = valueOf(cell, strings, is1904);
			if (cell.type === 'e') faults.push(`${letterOf(column)}${row + 1} (${cell.value})`);
			if (shown !== '' && row >= 0 && column >= 0 && column < SHEET_LIMITS.columns) {
				if (++count > SHEET_LIMITS.cells) throw new Error('too many cells');
				if (!cells.has(row)) cells.set(row, new Map());
				cells.get(row)!.set(column, shown);
			}
			cell = null;
		},
		text(text) {
			if (isValue && cell) cell.value += text;
		}
	});
	const filled = merged.reduce((sum, reference) => sum + fill(cells, reference), 0);
	const told: string[] = [];
	if (faults.length > 0)
		told.push(
			`${counted(faults.length, 'cell shows', 'cells show')} an error and ${faults.length === 1 ? 'is' : 'are'} read as empty: ${faults.slice(0, 5).join(', ')}${faults.length > 5 ? ', …' : ''}.`
		);
	if (hiddenRows > 0) told.push(`${counted(hiddenRows, 'hidden row is', 'hidden rows are')} read as well.`);
	if (hiddenColumns > 0) told.push(`${counted(hiddenColumns, 'hidden column is', 'hidden columns are')} read as well.`);
	if (filled > 0) told.push('What stands in joined cells is read in each of them.');
	return { rows: rowsOf(cells), told };
}

function valueOf(
	{ type, look, value }: { type: string; look: Shown; value: string },
	strings: string[],
	is1904: boolean
): string {
	switch (type) {
		case 's':
			return (strings[Number(value)] ?? '').trim();
		case 'b':
			return value === '1' ? 'yes' : 'no';
		case 'e':
			return '';
		case 'd':
			return value.slice(0, 10);
		case 'n': {
			if (value.trim() === '') return '';
			const number = Number(value);
			return Number.isFinite(number) ? numberInWords(number, look, is1904) : value.trim();
		}
		default:
			return value.trim();
	}
}

/** Cells that were joined show what stands in the first of them. */
function fill(cells: Cells, reference: string): number {
	const [from, to] = reference.split(':');
	if (!to) return 0;
	const [top, bottom] = [from, to].map((one) => Number(/\d+$/.exec(one)?.[0]) - 1);
	const [left, right] = [columnOf(from), columnOf(to)];
	const value = cells.get(top)?.get(left);
	// A title over the whole sheet is no value of each of its cells.
	if (value === undefined || bottom - top > 1_000 || right - left > 20) return 0;
	let filled = 0;
	for (let row = top; row <= bottom; row++)
		for (let column = left; column <= right; column++) {
			if (!cells.has(row)) cells.set(row, new Map());
			if (cells.get(row)!.has(column)) continue;
			cells.get(row)!.set(column, value);
			filled++;
		}
	return filled;
}
