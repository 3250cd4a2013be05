import { readFileSync } from 'node:fs';
import katex from 'katex';
import { afterAll, beforeAll, expect, it } from 'vitest';
import { keyInWords, readText } from '$core/paper';
import { buildHouse, type House } from '../testing/house';
import { readDocument } from '.';

// How these documents were made, and by what, stands beside them.
let house: House;
beforeAll(async () => void (house = await buildHouse()));
afterAll(() => house.close());

async function read(name: string) {
	const bytes = new Uint8Array(readFileSync(new URL(`../testing/strangers/${name}`, import.meta.url)));
	const document = await readDocument(house.otium, bytes);
	if (!document.ok) throw new Error(document.message);
	let made = 0;
	return { ...readText(document.text, () => `n${++made}`), told: document.told };
}
const keys = ({ questions }: Awaited<ReturnType<typeof read>>) => questions.map(({ question }) => keyInWords(question));
const doubts = ({ questions }: Awaited<ReturnType<typeof read>>) => questions.flatMap((one) => one.doubts);

it('two lists, one of questions and one of letters: three questions with their choices', async () => {
	const found = await read('auto_two_lists.docx');
	expect([keys(found), doubts(found), found.unread]).toEqual([['choice 1', 'choice 2', 'choice 3'], [], []]);
});

it('headings, a text of two paragraphs, choices in a line, and lines that were broken by hand', async () => {
	const found = await read('headings.docx');
	expect(keys(found)).toEqual(['y', 'three', 'two']);
	expect(found.questions.map(({ part }) => part)).toEqual(['Section A', 'Section B', 'Section B']);
	expect(found.questions[0].question.stem).toBe('First para of the stem.\nSecond para of the stem, unnumbered.');
	expect(found.unread.map(({ text }) => text)).toEqual([
		'Final examination',
		'Answer all questions. Time: 60 minutes.'
	]);
});

it('spaces around what is bold or slanted stay, and a note stands where it was referred to', async () => {
	expect((await read('glue.docx')).questions[0].question.stem).toBe(
		'Which is **not** true of __Homo__ sapiens  at night?'
	);
	const noted = await read('footnote.docx');
	expect(noted.questions.map(({ question }) => question.stem)).toEqual(['Text with a footnote [See chart 5011.]']);
	expect(noted.told).toEqual(['1 note stands in brackets where it was referred to.']);
});

it('a table of questions is questions', async () => {
	const found = await read('table.docx');
	expect([keys(found), doubts(found)]).toEqual([['4', 'Lima'], []]);
});

it('formulas are there, as TeX that is drawn', async () => {
	const found = await read('formula.docx');
	const { question } = found.questions[0];
	expect([question.stem, keyInWords(question)]).toEqual(['Solve $x^{2}=\\frac{9}{4}$ for x > 0.', '$\\frac{3}{2}$']);
	expect(() => katex.renderToString('x^{2}=\\frac{9}{4}', { throwOnError: true })).not.toThrow();
	expect(found.told).toEqual([]);
});

it('what is raised and lowered stays so, headings name parts and their points, answers at the end are keys', async () => {
	const found = await read('maths.docx');
	expect(found.questions[0].question.stem).toBe('How many metres are 10^3^ mm of H~2~O?');
	// One is bold and the list names the other: both are kept, and somebody is asked.
	expect(keys(found)).toEqual(['1, 10', '4.8 m ± 1 %']);
	expect(doubts(found).join(' ')).toContain('do not agree');
	expect(found.questions[1].question.points).toBe(2);
	expect([found.keys, JSON.stringify(found.questions).includes('Answers')]).toEqual([2, false]);
});
