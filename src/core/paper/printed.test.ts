import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { deal, printedForm, type Paper } from '.';
import { runs } from '$core/testing/runs';

const choices = ['north', 'south', 'east'].map((text) => ({ id: text[0], text }));
const shared = { points: 1, topic: '' };
const PAPER: Paper = {
	title: 'Numbers',
	parts: [
		{
			title: 'A',
			draw: null,
			questions: [
				{ ...shared, id: '1', kind: 'single', stem: 'One?', choices, answer: 's' },
				{ ...shared, id: '2', kind: 'multiple', stem: 'Some?', choices, answer: ['n', 'e'], partial: true },
				{ ...shared, id: '3', kind: 'ordering', stem: 'Order?', choices, answer: ['e', 'n', 's'], partial: true },
				{
					...shared,
					id: '4',
					kind: 'matching',
					stem: 'Match?',
					items: [
						{ id: 'p', text: 'port' },
						{ id: 'q', text: 'starboard' }
					],
					matches: [
						{ id: 'r', text: 'red' },
						{ id: 'g', text: 'green' },
						{ id: 'w', text: 'white' }
					],
					answer: { p: 'r', q: 'g' },
					partial: true
				},
				{
					...shared,
					id: '5',
					kind: 'fill_in',
					stem: 'It is [a] m.',
					gaps: [{ id: 'a', accepted: ['4'] }],
					partial: true
				}
			]
		}
	]
};

describe('a form on paper', () => {
	it('has a key whose letters name what is right, however it was dealt', () => {
		fc.assert(
			fc.property(fc.integer(), (seed) => {
				const order = { questionsInOwnOrder: true, choicesInOwnOrder: true };
				const printed = printedForm(PAPER, deal(PAPER, order, seed));
				const of = (kind: string) => printed.find((one) => one.kind === kind)!;
				const texts = (kind: string, key = of(kind).key) =>
					key.split(', ').map((letter) => of(kind).options.find((option) => option.letter === letter)!.text);
				expect(texts('single')).toEqual(['south']);
				expect(texts('multiple').sort()).toEqual(['east', 'north']);
				expect(texts('ordering')).toEqual(['east', 'north', 'south']);
				const pairs = of('matching')
					.key.split(', ')
					.map((pair) => pair.split(' '));
				for (const [number, letter] of pairs) {
					const [item] = [of('matching').items[Number(number) - 1]];
					const [text] = texts('matching', letter);
					expect([item, text]).toEqual(item === 'port' ? ['port', 'red'] : ['starboard', 'green']);
				}
				expect(of('fill_in')).toMatchObject({ stem: 'It is ____________ m.', key: 'a: 4' });
				expect(printed.map(({ number }) => number)).toEqual([1, 2, 3, 4, 5]);
			}),
			{ numRuns: runs(60) }
		);
	});
});
