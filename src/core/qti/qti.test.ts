import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import type { Choice, Paper, Part, Question } from '../paper';
import { isSame } from '../paper';
import { readPackage, writePackage } from '.';

let ids = 0;
const newId = () => `new${++ids}`;

const id = fc.stringMatching(/^[A-Za-z0-9_-]{1,12}$/);
const words = fc.constantFrom(
	'The tide',
	'rises & falls',
	'< 3 m',
	'"twice"',
	'maré',
	'שלום',
	'$h = \\frac{1}{2}$',
	'[x]',
	'😀',
	']]>'
);
const line = fc.array(words, { minLength: 1, maxLength: 4 }).map((parts) => parts.join(' '));
const text = fc.array(fc.oneof(line, fc.constant('')), { minLength: 1, maxLength: 3 }).map((lines) => lines.join('\n'));
const odd = fc.oneof(text, fc.constantFrom('', ' leads', 'ends ', 'two  spaces', 'a\ttab', '– a dash'));
const choices = (least: number): fc.Arbitrary<Choice[]> =>
	fc
		.uniqueArray(id, { minLength: least, maxLength: 5 })
		.chain((all) =>
			fc.tuple(
				...all.map((one) =>
					fc.record({ id: fc.constant(one), text: odd, pinned: fc.boolean() }, { requiredKeys: ['id', 'text'] })
				)
			)
		);
const shared = fc.record(
	{
		id,
		stem: odd,
		points: fc.integer({ min: 0, max: 20 }),
		topic: fc.constantFrom('', 'Tides', 'Tides / Heights & ranges'),
		difficulty: fc.constantFrom('easy' as const, 'medium' as const, 'hard' as const),
		seconds: fc.integer({ min: 5, max: 10_800 }),
		tags: fc.uniqueArray(fc.constantFrom('chart', 'two words', 'a&b'), { minLength: 1, maxLength: 3 }),
		source: line,
		note: text.filter((one) => one !== ''),
		hint: text.filter((one) => one !== ''),
		picture: fc.constantFrom('cone', 'a mark & more'),
		inOther: fc.dictionary(
			fc.constantFrom('pt', 'ar'),
			fc.record({ stem: text, texts: fc.dictionary(id, text, { minKeys: 1, maxKeys: 2 }) }, { requiredKeys: ['stem'] }),
			{ minKeys: 1 }
		)
	},
	{ requiredKeys: ['id', 'stem', 'points', 'topic'] }
);
const partial = fc.boolean();
const accepted = fc.uniqueArray(fc.constantFrom('six', 'Six & a half', '6,0', 'seis <6>'), { maxLength: 3 });
const kinds: fc.Arbitrary<object> = fc.oneof(
	fc.record({ kind: fc.constant('true_false'), answer: fc.boolean() }),
	choices(1).chain((list) =>
		fc.record({
			kind: fc.constant('single'),
			choices: fc.constant(list),
			answer: fc.constantFrom('', ...list.map((one) => one.id))
		})
	),
	choices(1).chain((list) =>
		fc.record({
			kind: fc.constant('multiple'),
			choices: fc.constant(list),
			answer: fc.subarray(list.map((one) => one.id)),
			partial
		})
	),
	choices(2).chain((list) =>
		fc.record({
			kind: fc.constant('ordering'),
			choices: fc.constant(list),
			answer: fc.shuffledSubarray(
				list.map((one) => one.id),
				{ minLength: list.length }
			),
			partial
		})
	),
	fc.tuple(choices(1), choices(1)).map(([items, matches]) => ({
		kind: 'matching',
		items: items.map(({ id, text }) => ({ id, text })),
		matches: matches.map(({ id, text }) => ({ id, text })),
		answer: Object.fromEntries(items.map((item, i) => [item.id, matches[i % matches.length].id])),
		partial: true
	})),
	fc.record({ kind: fc.constant('short'), accepted }),
	fc.record({
		kind: fc.constant('numeric'),
		answer: fc.constantFrom(0, 6, -4.8, 1_852, 0.001),
		tolerance: fc.oneof(
			fc.record({ kind: fc.constant('absolute' as const), amount: fc.constantFrom(0, 0.05, 2) }),
			fc.record({ kind: fc.constant('relative' as const), amount: fc.constantFrom(0, 0.01, 0.125) })
		),
		unit: fc.constantFrom('', 'm', 'knots per hour')
	}),
	fc.record({
		kind: fc.constant('essay'),
		words: fc.option(fc.record({ from: fc.nat(100), to: fc.integer({ min: 101, max: 900 }) }))
	})
);
const gapped = fc
	.tuple(
		shared,
		fc.uniqueArray(fc.stringMatching(/^[A-Za-z0-9]{1,6}$/), { minLength: 1, maxLength: 3 }),
		accepted,
		partial
	)
	.map(([one, names, said, isPartial]) => ({
		...one,
		kind: 'fill_in' as const,
		stem: names.map((name) => `Before [${name}] after`).join('\n'),
		gaps: names.map((name) => ({ id: name, accepted: said })),
		partial: isPartial
	}));
const question = fc.oneof(
	fc.tuple(shared, kinds).map(([one, kind]) => ({ ...one, ...kind }) as Question),
	gapped as fc.Arbitrary<Question>
);
const part: fc.Arbitrary<Part> = fc.record({
	title: fc.constantFrom('', 'Buoyage', 'Tides & currents'),
	draw: fc.option(fc.integer({ min: 0, max: 6 })),
	questions: fc.array(question, { maxLength: 4 })
});
const SVG = '<svg xmlns="http://www.w3.org/2000/svg" viewBox="0 0 10 10"><circle cx="5" cy="5" r="4"/></svg>';
const PICTURES = { cone: { svg: SVG, alt: 'a black cone' }, 'a mark & more': { svg: SVG, alt: '"two" cones' } };
const paper: fc.Arbitrary<Paper> = fc
	.record(
		{
			title: fc.constantFrom('Coastal Navigation I', 'A & B'),
			parts: fc.array(part, { minLength: 1, maxLength: 3 }),
			language: fc.constantFrom('pt', 'cy'),
			script: text.filter((one) => one !== ''),
			formulaSheet: fc.array(line, { minLength: 1, maxLength: 3 })
		},
		{ requiredKeys: ['title', 'parts'] }
	)
	.map((made) => {
		// Ids are once in a paper; pictures are those that questions show.
		const seen = new Set<string>();
		const parts = made.parts.map((one) => ({
			...one,
			questions: one.questions.filter(({ id }) => !seen.has(id) && seen.add(id))
		}));
		const shown = new Set(parts.flatMap(({ questions }) => questions.map(({ picture }) => picture)));
		const pictures = Object.fromEntries(Object.entries(PICTURES).filter(([name]) => shown.has(name)));
		return { ...made, parts, ...(Object.keys(pictures).length > 0 ? { pictures } : {}) };
	});

describe('a QTI package', () => {
	it('3.0 of any paper of ours comes in as the same', () => {
		fc.assert(
			fc.property(paper, (written) => {
				const read = readPackage(writePackage(written), newId);
				expect(read).toMatchObject({ ok: true, told: [] });
				if (read.ok && !isSame(read.paper, written)) expect(read.paper).toEqual(written);
			}),
			{ numRuns: 300 }
		);
	});

	it('2.1 as well, but for other languages', () => {
		fc.assert(
			fc.property(paper, (written) => {
				const without = {
					...written,
					parts: written.parts.map((one) => ({
						...one,
						questions: one.questions.map(({ inOther: _, ...rest }) => rest as Question)
					}))
				};
				const read = readPackage(writePackage(written, '2.1'), newId);
				expect(read).toMatchObject({ ok: true, told: [] });
				if (read.ok && !isSame(read.paper, without)) expect(read.paper).toEqual(without);
			}),
			{ numRuns: 100 }
		);
	});
});
