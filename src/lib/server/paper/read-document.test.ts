import { strToU8, zipSync } from 'fflate';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { readText } from '$core/paper';
import { buildHouse, type House } from '../testing/house';
import { readDocument } from '.';

let house: House;
beforeEach(async () => void (house = await buildHouse()));
afterEach(() => house.close());

/** A paragraph of WordprocessingML (ECMA-376, part 1, 17.3), at a level of a list if that is given. */
const p = (text: string, level: number | null = null, bold = false) =>
	`<w:p>${level === null ? '' : `<w:pPr><w:numPr><w:ilvl w:val="${level}"/><w:numId w:val="1"/></w:numPr></w:pPr>`}<w:r>${bold ? '<w:rPr><w:b/></w:rPr>' : ''}<w:t xml:space="preserve">${text}</w:t></w:r></w:p>`;
const W = 'xmlns:w="http://schemas.openxmlformats.org/wordprocessingml/2006/main"';
const REL = 'http://schemas.openxmlformats.org/officeDocument/2006/relationships';
const levels = [0, 1].map((at) => `<w:lvl w:ilvl="${at}"><w:numFmt w:val="decimal"/></w:lvl>`).join('');

/** The least that is a document, written by hand from the standard (from memory). */
function docx(body: string, more: Record<string, string> = {}): Uint8Array {
	const files = {
		'[Content_Types].xml':
			'<Types xmlns="http://schemas.openxmlformats.org/package/2006/content-types"><Default Extension="rels" ContentType="application/vnd.openxmlformats-package.relationships+xml"/><Default Extension="xml" ContentType="application/xml"/><Override PartName="/word/document.xml" ContentType="application/vnd.openxmlformats-officedocument.wordprocessingml.document.main+xml"/></Types>',
		'_rels/.rels': `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r1" Type="${REL}/officeDocument" Target="word/document.xml"/></Relationships>`,
		'word/_rels/document.xml.rels': `<Relationships xmlns="http://schemas.openxmlformats.org/package/2006/relationships"><Relationship Id="r2" Type="${REL}/numbering" Target="numbering.xml"/></Relationships>`,
		'word/numbering.xml': `<w:numbering ${W}><w:abstractNum w:abstractNumId="0">${levels}</w:abstractNum><w:num w:numId="1"><w:abstractNumId w:val="0"/></w:num></w:numbering>`,
		'word/document.xml': `<w:document ${W}><w:body>${body}</w:body></w:document>`,
		...more
	};
	return zipSync(Object.fromEntries(Object.entries(files).map(([name, text]) => [name, strToU8(text)])));
}
const read = async (bytes: Uint8Array) => {
	const result = await readDocument(house.otium, bytes);
	return result.ok ? result.text : `refused: ${result.message}`;
};

describe('a document from a word processor', () => {
	it('its own numbering becomes questions and choices, and what is bold the right one', async () => {
		const text = await read(
			docx(
				p('Tides, spring term') +
					p('Spring tides come after', 0) +
					p('the quarters', 1) +
					p('new &amp; full moon', 1, true) +
					p('Port is', 0) +
					p('left', 1, true) +
					p('right', 1)
			)
		);
		let made = 0;
		const { questions, unread } = readText(text, () => `n${++made}`);
		expect(unread).toMatchObject([{ text: 'Tides, spring term' }]);
		expect(questions.map(({ doubts }) => doubts)).toEqual([[], []]);
		const right = questions.map(
			({ question }) => question.kind === 'single' && question.choices.find(({ id }) => id === question.answer)!.text
		);
		expect(right).toEqual(['new & full moon', 'left']);
	});

	it('numbers that were typed by hand are read as they stand', async () => {
		const text = await read(docx(p('1. What is the range?') + p('Answer: 4.8 m')));
		expect(text.trim()).toBe('1. What is the range?\nAnswer: 4.8 m');
	});

	it.each([
		['no archive', strToU8('1. What?'), 'not a .docx document'],
		['an archive without a document', zipSync({ 'a.txt': strToU8('x') }), 'holds no document'],
		['one that is cut off', docx(p('x')).slice(0, 400), 'damaged'],
		['one that is no XML', docx('<<<'), 'can’t be read'],
		['a bomb', zipSync({ 'word/document.xml': new Uint8Array(80 * 1024 * 1024) }, { level: 9 }), 'is not opened']
	])('%s is refused with a way out', async (_, bytes, words) => {
		expect(await read(bytes)).toContain(words);
	});

	it('entities that would grow without end do not', async () => {
		const lol = Array.from({ length: 9 }, (_, i) => `<!ENTITY l${i + 1} "${`&l${i};`.repeat(10)}">`).join('');
		const bomb = `<!DOCTYPE w [<!ENTITY l0 "ha">${lol}]><w:document ${W}><w:body>${p('&l9;')}</w:body></w:document>`;
		expect((await read(docx('', { 'word/document.xml': bomb }))).length).toBeLessThan(10_000);
	});
});
