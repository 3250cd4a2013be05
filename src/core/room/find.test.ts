import { describe, expect, it } from 'vitest';
import { findByWords } from './find';

const PEOPLE = [
	{ name: 'Greta Vance', number: 'DO-1012' },
	{ name: 'Inês Corvo', number: 'DO-1013' },
	{ name: 'Greta Inesson', number: 'LP-7' }
];
const find = (text: string) => findByWords(PEOPLE, text, (one) => [one.name, one.number]).map((one) => one.name);

describe('somebody is found', () => {
	it('by parts of the name in any order and case, with or without accents', () => {
		expect(find('vance GRE')).toEqual(['Greta Vance']);
		expect(find('ines')).toEqual(['Inês Corvo', 'Greta Inesson']);
		expect(find('corvo inês')).toEqual(['Inês Corvo']);
	});
	it('by the number, with or without its dash', () => {
		expect(find('DO-1013')).toEqual(['Inês Corvo']);
		expect(find('do1013')).toEqual(['Inês Corvo']);
	});
	it('not at all by nothing, or by a word too many', () => {
		expect(find('  ')).toEqual([]);
		expect(find('greta vance corvo')).toEqual([]);
	});
});
