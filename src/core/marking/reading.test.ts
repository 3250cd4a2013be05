import { describe, expect, it } from 'vitest';
import { readAs, readDecimal, readWhole } from '../quantity';
import { isReduced, markAnswer, readNumber } from './index';
import { isAccepted } from './short-answer';
import { isWithin } from './tolerance';

describe('numbers, as people write them', () => {
	it.each([
		['3½', 3.5],
		['3 ½', 3.5],
		['½', 0.5],
		['-1¾', -1.75],
		['10³', 1_000],
		['10^3', 1_000],
		['10^-3', 0.001],
		['1·10^3', 1_000],
		['6.4 × 10³', 6_400],
		['6,4·10⁻³', 0.0064],
		['1.6e-19', 1.6e-19],
		['(3.5)', 3.5],
		['= 3.5', 3.5],
		['£3.50', 3.5],
		['€ 12', 12],
		['9.81 m/s2', 9.81],
		['9.81 m/s²', 9.81],
		['9.81 m s^-2', 9.81],
		['3.5 m²', 3.5],
		['12 kg·m²/s²', 12],
		['45 %', 45],
		['20 °C', 20],
		['5 ft.', 5],
		['٣٫٥', 3.5],
		['۱۲', 12],
		['१२.५', 12.5],
		['３．５', 3.5],
		['1 000 000', 1_000_000],
		['1’000’000', 1_000_000],
		['12,34,567', 1_234_567],
		['−5', -5],
		['3/4 m', 0.75]
	])('%s', (typed, value) => expect(readNumber(typed)).toContain(value));

	it.each(['1.5 to 2.5', '12 apples 4', 'about 5', '3.5.1', 'x', '', '1/0', '5 6 m 7', '12:30', '45°30'])(
		'%s is none',
		(typed) => expect(readNumber(typed)).toEqual([])
	);

	it('what is no digit may stand after it, whatever it is', () => {
		for (const typed of ['5!', '5 (approx)', '5 kg (net)', '5 & more', '5?', '5 -', '5 ™'])
			expect(readNumber(typed), typed).toEqual([5]);
		expect(isReduced('6/8 !')).toBe(false);
	});

	it('takes a time that grows with what was typed, and not with all the ways to cut it', () => {
		const many = 20_000;
		for (const typed of [
			`5 ${'a '.repeat(many)}1`,
			`5${'a'.repeat(many)} 1`,
			`5 ${'a.'.repeat(many)}9`,
			`${'1 '.repeat(many)}!1`
		])
			expect(readNumber(typed)).toEqual([]);
		expect(readNumber(`(${' '.repeat(many)}5`)).toEqual([]);
		expect(isAccepted(['a b'], `a${' '.repeat(many)}-b`)).toBe(true);
		expect(isAccepted(['a'], `a${'\u0301'.repeat(many)}- `)).toBe(false);
	});

	it('what is near enough has no floor: a tiny key takes no nought', () => {
		const charge = { answer: 1.602e-19, tolerance: { kind: 'relative' as const, amount: 0.01 } };
		expect([0, 5e-19, 1.61e-19, 1.602e-19].map((read) => isWithin(read, charge))).toEqual([false, false, true, true]);
		const edge = { answer: 0.3, tolerance: { kind: 'absolute' as const, amount: 0.1 } };
		expect([0.4, 0.2, 0.41].map((read) => isWithin(read, edge))).toEqual([true, true, false]);
	});
});

describe('short answers, as people write them', () => {
	it.each([
		['anchor ball', 'Anchor  Ball'],
		['anchor ball', 'anchor-ball'],
		['Mærsk', 'maersk'],
		['café', 'CAFE'],
		['o’clock', "o'clock"],
		['o’clock', 'oclock'],
		['starboard', ' Starboard. '],
		['ＡＢＣ', 'abc'],
		['x-1', 'x−1'],
		['C++', 'c++'],
		['<=', '<=']
	])('%s counts as typed %s', (key, typed) => expect(isAccepted([key], typed)).toBe(true));

	it.each([
		['x-1', 'x+1'],
		['x-1', 'x1'],
		['-5', '5'],
		['3.5', '35'],
		['1/2', '12'],
		['C++', 'C'],
		['12:30', '1230'],
		['が', 'か'],
		['กำ', 'กา'],
		['й', 'и'],
		['<=', '>='],
		['<=', '']
	])('%s does not count as typed %s', (key, typed) => expect(isAccepted([key], typed)).toBe(false));

	it('what was closed before is read as it was then', () => {
		const question = { id: 'q', kind: 'short' as const, stem: '?', points: 1, topic: '', accepted: ['x-1'] };
		const mark = (asBefore: boolean) => markAnswer(question, 'x+1', { wrong: 'free' }, { asBefore }).verdict;
		expect([mark(true), mark(false)]).toEqual(['right', 'wrong']);
	});
});

describe('a field for a whole number', () => {
	it.each([
		['', null],
		[' 60 ', 60],
		['1 200', 1_200],
		['1,200', 1_200],
		['3oo', undefined],
		['sixty', undefined],
		['abc', undefined],
		['-1', undefined],
		['2.5', undefined],
		['101', 101],
		['1e9', undefined]
	])('“%s”', (typed, value) => expect(readWhole(typed, 0, 100_000)).toBe(value));
});

describe('a number in a field', () => {
	it.each([
		['2.5', 2.5],
		['2,5', 2.5],
		['1.125', 1.125],
		['−3', -3],
		['1 000', 1_000],
		['½', 0.5],
		['', null],
		// One to some, a thousand to others.
		['1,234', undefined],
		['abc', undefined],
		['3 kg', undefined]
	])('“%s” is %s', (typed, value) => expect(readDecimal(typed)).toBe(value));
});

describe('how a number is read, for whoever typed it', () => {
	it.each([
		['9,81 m/s^2', ['9.81 m/s²']],
		['1.6e-19 C', ['1.6 × 10⁻¹⁹ C']],
		['-3', ['−3']],
		['3½', ['3.5']],
		['1,234', ['1.234', '1234']],
		['5 kg·m^(-3)', ['5 kg·m⁻³']],
		['2 000 000 000', ['2 × 10⁹']],
		['abc', []],
		['12 and 13', []]
	])('“%s” as %j', (typed, told) => expect(readAs(typed)).toEqual(told));
});
