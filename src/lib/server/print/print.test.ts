import { getDocument } from 'pdfjs-dist/legacy/build/pdf.mjs';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { deal, printedForm } from '$core/paper';
import { knock } from '../identity';
import { findSession, slipsFor } from '../session';
import { paperVersion } from '../paper';
import { act, begin } from '../sitting';
import { arriveAt, buildHouse, NINE, openDoor, planMakeUp, PROCTOR, type House } from '../testing/house';
import { printFor, printPaper, PRINTS, type Print } from '.';
import { toPdf } from './pdf';

let house: House;
beforeEach(async () => {
	const { DEFAULT_RULES } = await import('$core/session');
	house = await buildHouse({
		candidates: 9,
		rules: { door: { ...DEFAULT_RULES.door, slips: true }, startWord: 'halyard' }
	});
	await house.otium.db('candidate').where({ id: 'can0' }).update({ given: 'Zoë', family: 'Łukasiewicz' });
});
afterEach(() => house.close());

async function pagesOf(print: Print): Promise<string[]> {
	const session = (await findSession(house.otium.db, 's1'))!;
	return pagesIn(await printFor(house.otium, session, print, 'https://otium.example'));
}

/** The text of each page, as pdf.js reads it. */
async function pagesIn(bytes: Uint8Array): Promise<string[]> {
	const pdf = await getDocument({ data: bytes, useSystemFonts: true }).promise;
	return Promise.all(
		Array.from({ length: pdf.numPages }, async (_, i) => {
			const { items } = await (await pdf.getPage(i + 1)).getTextContent();
			return items.map((item) => ('str' in item ? item.str : '')).join(' ');
		})
	);
}

describe('prints, read back by pdf.js', () => {
	it.each(Object.keys(PRINTS) as Print[])('%s names paper, room and day', async (print) => {
		const text = (await pagesOf(print)).join(' ').replace(/\s+/g, ' ');
		expect(text).toContain('Numbers');
		expect(text).toContain('Chart Room, Quayside');
		expect(text).toContain('Tuesday 8 December');
	});

	it('a name of another script is drawn, in its own font and its own order', async () => {
		await house.otium.db('candidate').where({ id: 'can1' }).update({ given: 'هند', family: 'بنت عمر' });
		await house.otium.db('candidate').where({ id: 'can2' }).update({ given: 'שירה', family: 'בן־דוד' });
		// Letters as they are drawn, in whatever order and form: pdf.js reads Arabic from its glyphs.
		const lettersOf = (words: string) => [...words.normalize('NFKC').replace(/\P{L}/gu, '')].sort().join('');
		const text = (await pagesOf('register')).join(' ');
		for (const [others, names] of [
			[/\P{Script=Arabic}/gu, 'هند بنت عمر'],
			[/\P{Script=Hebrew}/gu, 'שירה בן־דוד']
		] as const)
			expect(lettersOf(text.replace(others, ''))).toBe(lettersOf(names));
		expect(text).not.toMatch(/[\u2066-\u2069]/);
	});

	it('a paper, its answer sheet and its key belong together, by the letters of one form', async () => {
		const { content } = await paperVersion(house.otium.db, 'numbers');
		const texts = await Promise.all(
			(['paper', 'answers', 'key'] as const).map(async (what) =>
				(await pagesIn(await printPaper(house.otium, content, 'version 1', what, 7))).join(' ')
			)
		);
		for (const text of texts) expect(text).toContain('version 1 · form 7');
		const [paper, , key] = texts;
		const form = printedForm(content, deal(content, { questionsInOwnOrder: true, choicesInOwnOrder: true }, 7));
		for (const { stem } of form) expect(paper.replace(/\s+/g, ' ')).toContain(stem.slice(0, 30));
		for (const { key: right, number } of form) expect(key.replace(/\s+/g, ' ')).toContain(`${number} ${right}`);
	});

	it('slips: one each with a code that opens the door to them alone, the same at every printing', async () => {
		const text = (await pagesOf('slips')).join(' ');
		const codes = text.match(/\b[0-9A-Z]{4}-[0-9A-Z]{3}-[0-9A-Z]{3}\b/g)!;
		expect(new Set(codes).size).toBe(9);
		expect(text).toContain('Łukasiewicz, Zoë');
		expect((await pagesOf('slips')).join(' ').match(/\b[0-9A-Z]{4}-[0-9A-Z]{3}-[0-9A-Z]{3}\b/g)).toEqual(codes);
		await openDoor(house);
		house.clock.at = NINE - 5 * 60_000;
		const code = (await slipsFor(house.otium.db, ['sit4'])).get('sit4')!;
		const met = await knock(house.otium, { code: code.toLowerCase(), number: '', family: '', address: '127.0.0.1' });
		expect(met).toMatchObject({ ok: true, person: { name: 'Given4 Family4' } });
	});

	it('the register has a line for each, in the order of names', async () => {
		const text = (await pagesOf('register')).join(' ').replace(/\s+/g, ' ');
		const names = Array.from({ length: 8 }, (_, i) => `Family${i + 1}, Given${i + 1}`);
		expect(names.map((name) => text.indexOf(name))).toEqual(
			[...names.map((name) => text.indexOf(name))].sort((a, b) => a - b)
		);
		expect(text).toContain('9 expected.');
	});

	it('the register keeps whoever went on in another session, and their slip is theirs there', async () => {
		await arriveAt(house, 3, await openDoor(house));
		await act(house.otium, [{ id: 'let-in', sittingId: 'sit3', by: PROCTOR, body: { kind: 'let_in' } }]);
		expect(await begin(house.otium, 'sit3', 'begin-it', 'halyard')).toMatchObject({ ok: true });
		const carried = { kind: 'carry_over', reason: 'unwell' } as const;
		await act(house.otium, [{ id: 'carry', sittingId: 'sit3', by: PROCTOR, body: carried }]);
		const other = await planMakeUp(house, { only: ['can3'] });
		const moved = await house.otium.db('sitting').where({ id: 'sit3' }).first('session_id');
		expect(moved).toEqual({ session_id: other });
		const text = (await pagesOf('register')).join(' ').replace(/\s+/g, ' ');
		expect(text).toContain('9 expected.');
		expect(text).toMatch(/Family3, Given3.*?went on elsewhere/);
		expect((await pagesOf('seating')).join(' ')).not.toContain('Given3');
	});

	it('the script tells the proctor the words and reads aloud the time', async () => {
		const text = (await pagesOf('script')).join(' ').replace(/\s+/g, ' ');
		expect(text).toContain('halyard');
		expect(text).toContain('You have 60 minutes, from when you begin.');
	});

	it('a paper’s own script is read aloud in the place of the general one', async () => {
		const { content } = await house.otium.db('paper').where({ id: 'numbers' }).first('content');
		const own = { ...JSON.parse(content), script: 'Put your sextants under the chair.' };
		await house.otium
			.db('paper')
			.where({ id: 'numbers' })
			.update({ content: JSON.stringify(own) });
		const text = (await pagesOf('script')).join(' ').replace(/\s+/g, ' ');
		expect(text).toContain('Put your sextants under the chair.');
		expect(text).not.toContain('You can start.');
	});
});

it('a document that can’t be drawn fails alone, and nothing is fetched or read for it', async () => {
	const reads = toPdf(house.otium, 'Reads', { content: [{ image: '/etc/hostname' }] });
	const fetches = toPdf(house.otium, 'Fetches', { content: [{ image: 'https://otium.example/picture.png' }] });
	const next = toPdf(house.otium, 'Next', { content: ['Drawn'] });
	await expect(reads).rejects.toThrow(/\/etc\/hostname/);
	await expect(fetches).rejects.toThrow(/otium\.example/);
	expect(new TextDecoder('latin1').decode((await next).slice(0, 5))).toBe('%PDF-');
});
