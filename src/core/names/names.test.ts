import { describe, expect, it } from 'vitest';
import { fullName, isolated, plainLetters, plainName, someNames } from '.';

describe('a name in a sentence', () => {
	it('is isolated when it runs right to left, and left alone otherwise', () => {
		// U+2068 and U+2069: first strong isolate, pop directional isolate (UAX #9, 2.4).
		expect(isolated('هند')).toBe('\u2068هند\u2069');
		expect(isolated('Watch משמרת')).toBe('\u2068Watch משמרת\u2069');
		for (const name of ['Rook', 'Ó Rook', '李小龍', 'Иванова', 'श्रीमती', '']) expect(isolated(name)).toBe(name);
	});

	it('is given and family name, or the one that there is', () => {
		expect(fullName({ given: 'Tobias', family: 'Rook' })).toBe('Tobias Rook');
		expect(fullName({ given: '', family: 'Arunika' })).toBe('Arunika');
		expect(fullName({ given: 'שירה', family: 'בן־דוד' })).toBe('\u2068שירה בן־דוד\u2069');
	});

	it('is plain in a file that another program reads', () => {
		expect(plainName({ given: 'שירה', family: 'בן־דוד' })).toBe('שירה בן־דוד');
	});
});

describe('a name as somebody in a hurry types it', () => {
	// Letters without their accents as the Latin-ASCII transform of Unicode's CLDR writes them; from memory.
	it.each([
		['Inês Furtado', 'ines furtado'],
		['INÊS', 'ines'],
		['Ine\u0302s', 'ines'],
		['Łuczak', 'luczak'],
		['Weiß', 'weiss'],
		['Ærøskøbing', 'aeroskobing'],
		['O’Hara-Smith', 'o’hara-smith'],
		['Ελένη', 'ελενη'],
		['', '']
	])('%s', (name, typed) => {
		expect(plainLetters(name)).toBe(typed);
		expect(plainLetters(typed)).toBe(typed);
	});
});

it('names some and counts the rest, and never counts a single one', () => {
	const all = ['Ann', 'Bo', 'Cy', 'Di', 'Ed'];
	expect([0, 1, 2, 4, 5].map((n) => someNames(all.slice(0, n)))).toEqual([
		'',
		'Ann',
		'Ann and Bo',
		'Ann, Bo, Cy and Di',
		'Ann, Bo, Cy and 2 more'
	]);
	expect(someNames(all, 4)).toBe('Ann, Bo, Cy, Di and Ed');
});
