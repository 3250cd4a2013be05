import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { blocksOf, firstWords, inlineOf, plainText, writeBlocks, type Block, type Inline, type Mark } from '.';
import { runs } from '$core/testing/runs';

const words = (text: string, ...marks: Mark[]): Inline => ({ kind: 'words', text, marks });

describe('a text', () => {
	it.each<[string, Inline[]]>([
		['plain words', [words('plain words')]],
		['$x^2 = 4$ [about] $5.', [{ kind: 'formula', tex: 'x^2 = 4' }, words(' [about] $5.')]],
		['It is **not** so', [words('It is '), words('not', 'strong'), words(' so')]],
		['H~2~O at 10^3^ Pa', [words('H'), words('2', 'sub'), words('O at 10'), words('3', 'sup'), words(' Pa')]],
		['**all __of__ it**', [words('all ', 'strong'), words('of', 'strong', 'emphasis'), words(' it', 'strong')]],
		['`a ** b`', [words('a ** b', 'code')]],
		['$a * b * c$ and **x**', [{ kind: 'formula', tex: 'a * b * c' }, words(' and '), words('x', 'strong')]],
		['\\*\\*plain\\*\\* 5\\$', [words('**plain** 5$')]],
		// What people wrote before there were marks.
		...[
			'3 * 4 and 5*6',
			'** spaced **',
			'____ is a gap, and ____ too',
			'about ~5 m to ~7 m',
			'2^3 and 3^4',
			'It costs $5',
			'a_b_c',
			'**never closed',
			'C:\\charts',
			'the mark `unclosed'
		].map((text): [string, Inline[]] => [text, [words(text)]])
	])('%s', (text, pieces) => expect(inlineOf(text)).toEqual(pieces));

	it('has gaps only where they are known, in a table too', () => {
		const [, table] = blocksOf('See:\n| Port | [a] |\n|---|---|\n| [b] | \\| [a] |', ['a']);
		expect(table).toEqual({
			kind: 'table',
			rows: [
				[[words('Port')], [{ kind: 'gap', id: 'a' }]],
				[[words('[b]')], [words('| '), { kind: 'gap', id: 'a' }]]
			]
		});
	});

	it('has lists that begin at one, and tables that have a heading; all else is lines', () => {
		const kinds = (text: string) => blocksOf(text).map(({ kind }) => kind);
		expect(kinds('Look:\n- one\n- two\nthen')).toEqual(['line', 'list', 'line']);
		expect(kinds('1. one\n2. two')).toEqual(['list']);
		expect(kinds('3. three\n4. four')).toEqual(['line', 'line']);
		expect(kinds('|x| is 3')).toEqual(['line']);
		expect(kinds('|x|\n|y|')).toEqual(['line', 'line']);
		expect(kinds('| a | b |\n|---|---|\n| 1 | 2 |\nend')).toEqual(['table', 'line']);
		// A short row is filled up, a long one cut to the heading.
		expect(blocksOf('| a | b |\n|---|---|\n| 1 |\n| 1 | 2 | 3 |')[0]).toMatchObject({
			rows: [{ length: 2 }, { length: 2 }, { length: 2 }]
		});
	});

	it('can be had without its looks', () =>
		expect(plainText('**Not** $x^2$\n- H~2~O\n| a | b |\n|---|---|\n| 1 | 2 |')).toBe('Not x^2\nH2O\na, b\n1, 2'));

	it('is told by its first words, in one line, with a sign where it goes on', () => {
		expect(firstWords('Two **lights** in line\nlead into', 90)).toBe('Two lights in line lead into');
		expect(firstWords('Say what you do, and why', 14)).toBe('Say what you…');
		expect(firstWords('Say what you do, and why', 16)).toBe('Say what you do,…');
		expect(firstWords('Say what you do, and why', 24)).toBe('Say what you do, and why');
		expect(firstWords('潮汐'.repeat(40), 12)).toBe(`${'潮汐'.repeat(6)}…`);
	});

	const MARKS: Mark[] = ['strong', 'emphasis', 'code', 'sub', 'sup'];
	const word = fc.constantFrom('tide', 'H', '2', '*', '**', '__', '~', '^', '|', '\\', '$', '- a', '1. a', 'é', '[a]');
	const inline = fc
		.array(
			fc.oneof(
				fc.record({
					kind: fc.constant('words' as const),
					text: fc.array(word, { minLength: 1, maxLength: 3 }).map((all) => all.join('')),
					marks: fc.subarray(MARKS.filter((mark) => mark !== 'code'))
				}),
				fc.record({ kind: fc.constant('formula' as const), tex: fc.constantFrom('x', '\\frac{1}{2}', 'a | b') })
			),
			{ minLength: 1, maxLength: 4 }
		)
		.map((pieces) => joined(pieces as Inline[]));
	const block: fc.Arbitrary<Block> = fc.oneof(
		fc.record({ kind: fc.constant('line' as const), inline }),
		fc.record({
			kind: fc.constant('list' as const),
			isOrdered: fc.boolean(),
			items: fc.array(inline, { minLength: 1, maxLength: 3 })
		}),
		fc.integer({ min: 1, max: 3 }).chain((width) =>
			fc.record({
				kind: fc.constant('table' as const),
				rows: fc.array(fc.array(inline, { minLength: width, maxLength: width }), { minLength: 1, maxLength: 3 })
			})
		)
	);

	/** Words beside each other that look alike are one piece, as they are when they are read. */
	function joined(pieces: Inline[]): Inline[] {
		const all: Inline[] = [];
		for (const piece of pieces) {
			const last = all.at(-1);
			if (last?.kind === 'words' && piece.kind === 'words' && String(last.marks) === String(piece.marks))
				all[all.length - 1] = { ...last, text: last.text + squeezed(piece) };
			else all.push(piece.kind === 'words' ? { ...piece, text: squeezed(piece) } : piece);
		}
		return all;
	}
	/** Without the spaces that no mark may begin or end with. */
	const squeezed = ({ text, marks }: { text: string; marks: Mark[] }) =>
		marks.length > 0 ? text.replaceAll(' ', '') : text;

	it('written from what it is made of is made of the same', () => {
		fc.assert(
			fc.property(fc.array(block, { minLength: 1, maxLength: 3 }), (blocks) => {
				// Two lists or tables that touch would be one.
				const apart = blocks.flatMap((one, i): Block[] =>
					i > 0 ? [{ kind: 'line', inline: [words('then')] }, one] : [one]
				);
				expect(blocksOf(writeBlocks(apart))).toEqual(apart);
			}),
			{ numRuns: runs(500) }
		);
	});

	it('whatever somebody types is read, and its words are kept', () => {
		fc.assert(
			fc.property(fc.string({ unit: 'grapheme' }), fc.array(word), (typed, more) => {
				const text = typed + more.join('');
				expect(plainText(plainText(text))).toBeDefined();
				// As the editor keeps it: read and written, it says the same as before.
				expect(plainText(writeBlocks(blocksOf(text)))).toBe(plainText(text));
			}),
			{ numRuns: runs(500) }
		);
	});
});
