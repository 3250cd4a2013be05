import { zipSync } from 'fflate';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { guessColumns, readRows } from '$core/paper';
import { buildHouse, type House } from '../testing/house';
import { workbook } from '../testing/workbook';
import { readQuestionSheet } from '.';

let house: House;
beforeEach(async () => void (house = await buildHouse()));
afterEach(() => house.close());
const read = (bytes: Uint8Array) => readQuestionSheet(house.otium, bytes);
const text = (words: string) => Buffer.from(words);

describe('a table from a spreadsheet', () => {
	it('is read from a workbook: words, numbers, and cells that are empty', async () => {
		const sheet = await read(
			workbook([
				['Question', 'A', 'B', 'Answer', 'Points'],
				['Red & green <lights>?', 'port', 'starboard', 'B', 2],
				[null, null],
				['How deep?', null, null, 4.8, null]
			])
		);
		if (!sheet.ok) throw new Error(sheet.message);
		const { questions, unread } = readRows(sheet.rows, guessColumns(sheet.header), () => String(Math.random()));
		expect(unread).toEqual([]);
		expect(questions.map(({ line }) => line)).toEqual([2, 4]);
		expect(questions[0].question).toMatchObject({ kind: 'single', stem: 'Red & green <lights>?', points: 2 });
		expect(questions[1].question).toMatchObject({ kind: 'numeric', answer: 4.8, points: 1 });
	});

	it('is read from comma-separated values as offices save them', async () => {
		const sheet = await read(text('﻿Question;Choices;Right\r\n"Maré; alta?";"a) sim\nb) não";B\r\n'));
		expect(sheet).toMatchObject({ ok: true, header: ['Question', 'Choices', 'Right'], told: [] });
		expect(sheet.ok && sheet.rows).toEqual([{ line: 2, cells: ['Maré; alta?', 'a) sim\nb) não', 'B'] }]);
		const old = await read(Buffer.from('Question,Right\nMar\xe9?,sim\n', 'latin1'));
		expect(old).toMatchObject({ ok: true, told: [expect.stringContaining('Windows-1252')] });
	});

	it.each([
		['no table', Buffer.from([0, 1, 2, 3]), /not a text file/],
		['an empty file', text(''), /no row/],
		['a workbook without a row', workbook([]), /empty/],
		['an archive of something else', zipSync({ 'a.txt': text('x') }), /no workbook/],
		[
			'a damaged workbook',
			workbook([['x']], { 'xl/worksheets/sheet1.xml': '<worksheet><sheetData><row' }),
			/can’t be read|empty/
		],
		[
			'a workbook that swells',
			workbook([['x']], {
				'xl/worksheets/sheet1.xml': `<worksheet><sheetData>${' '.repeat(70_000_000)}</sheetData></worksheet>`
			}),
			/unpacks to more/
		],
		['too many rows', text(`Question\n${'why?\n'.repeat(6_000)}`), /5000 rows/]
	])('is refused in words where it is %s', async (_, bytes, words) => {
		const sheet = await read(bytes);
		expect(sheet.ok ? 'taken' : sheet.message).toMatch(words);
	});
});
