import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blocksOf, writeBlocks } from '$core/paper';
import { fromDocument, toDocument } from './stem-document';

const piece = fc.constantFrom(
	'tide',
	'**not**',
	'H~2~O',
	'$h = \\frac{1}{2}$',
	'[a]',
	'{high}',
	'2 * 3',
	'__so__',
	'`x`',
	'5 |',
	'\\*',
	'–'
);
const line = fc.array(piece, { minLength: 1, maxLength: 4 }).map((pieces) => pieces.join(' '));
const block = fc.oneof(
	line,
	fc.array(line, { minLength: 1, maxLength: 3 }).map((items) => items.map((item) => `- ${item}`).join('\n')),
	fc.constant('| a | $x$ |\n| --- | --- |\n| **1** | [a] |')
);

describe('a text in the editor', () => {
	it('is the same afterwards, if nothing was changed', () => {
		fc.assert(
			fc.property(fc.array(block, { minLength: 1, maxLength: 4 }), (blocks) => {
				const text = writeBlocks(blocksOf(blocks.join('\n')));
				expect(fromDocument(toDocument(text))).toBe(text);
			})
		);
	});

	it('an empty text is an empty document, and back', () => expect(fromDocument(toDocument(''))).toBe(''));

	it('keeps the words of what it can’t say: a list in a list, paragraphs in a cell', () => {
		const paragraph = (text: string) => ({ type: 'paragraph', content: [{ type: 'text', text }] });
		const inner = { type: 'bulletList', content: [{ type: 'listItem', content: [paragraph('inner')] }] };
		const list = { type: 'bulletList', content: [{ type: 'listItem', content: [paragraph('outer'), inner] }] };
		const cell = { type: 'tableHeader', content: [paragraph('one'), paragraph('two')] };
		const table = { type: 'table', content: [{ type: 'tableRow', content: [cell] }] };
		expect(fromDocument({ type: 'doc', content: [list, table] })).toBe('- outer inner\n| one two |\n| --- |');
	});
});
