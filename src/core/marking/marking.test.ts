import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	deal,
	dealtCount,
	dealtPoints,
	fitsQuestion,
	isBlank,
	keepsPlace,
	wordCount,
	type AnswerValue,
	type Paper,
	type DealtQuestion
} from '../paper';
import { markAnswer, markForm, isReduced, readNumber, rightAnswer } from '.';

const shared = { stem: 'Which?', topic: 'tides', points: 2 };
const single: DealtQuestion = {
	...shared,
	id: 'q1',
	kind: 'single',
	answer: 'b',
	choices: [
		{ id: 'a', text: '2.8 m' },
		{ id: 'b', text: '4.0 m' },
		{ id: 'c', text: '5.2 m' },
		{ id: 'd', text: 'None of these' }
	]
};
const truth: DealtQuestion = { ...shared, id: 'q2', kind: 'true_false', answer: false };
const numeric: DealtQuestion = {
	...shared,
	id: 'q3',
	kind: 'numeric',
	answer: 6.4,
	unit: 'm',
	tolerance: { kind: 'absolute', amount: 0.1 }
};

describe('fractions that are not reduced', () => {
	it.each([
		['3/4', true],
		['6/8', false],
		['4/1', false],
		['1 3/4', true],
		['1 6/4', false],
		['7/4', true],
		['−6/8 m', false],
		['¾', true],
		['0.75', true],
		['6', true]
	])('%s', (typed, reduced) => expect(isReduced(typed)).toBe(reduced));

	it('earn the part that the author set; as much as others where nothing is set', () => {
		const three: DealtQuestion = { ...numeric, answer: 0.75, tolerance: { kind: 'absolute', amount: 0 }, unit: '' };
		const points = (question: DealtQuestion, typed: string) => markAnswer(question, typed, { wrong: 'free' }).points;
		expect([points(three, '6/8'), points(three, '3/4')]).toEqual([2, 2]);
		const strict = { ...three, unsimplified: 50 };
		expect(['6/8', '3/4', '0.75', '5/8'].map((typed) => points(strict, typed))).toEqual([1, 2, 2, 0]);
		expect(points({ ...three, unsimplified: 0 }, '6/8')).toBe(0);
	});
});

describe('numbers as people type them', () => {
	it.each<[string, number[]]>([
		['6.4', [6.4]],
		['6,4', [6.4]],
		['−3', [-3]],
		[' 6.4 m', [6.4]],
		['3/4', [0.75]],
		['1 3/4', [1.75]],
		['-1 1/2', [-1.5]],
		['½', [0.5]],
		['.5', [0.5]],
		['6.4e3', [6400]],
		['6.4 × 10^3', [6400]],
		['1 852', [1852]],
		['1’852', [1852]],
		['1,852', [1.852, 1852]],
		['1.852,5', [1852.5]],
		['1,234,567', [1234567]],
		['12,34,5', []],
		['5/0', []],
		['about six', []],
		['', []]
	])('%s', (typed, readings) => expect(readNumber(typed)).toEqual(readings));

	it('reads back every number that the platform writes, in English and in German', () => {
		fc.assert(
			fc.property(fc.integer({ min: -9_999_999, max: 9_999_999 }), fc.integer({ min: 0, max: 99 }), (whole, cents) => {
				const value = whole + (Math.sign(whole) || 1) * (cents / 100);
				for (const locale of ['en-GB', 'de-DE']) {
					const written = new Intl.NumberFormat(locale, { minimumFractionDigits: 2 }).format(value);
					expect(readNumber(written).some((read) => Math.abs(read - value) < 1e-6)).toBe(true);
				}
			})
		);
	});
});

describe('marking one answer', () => {
	const free = { wrong: 'free' } as const;
	const points = (question: DealtQuestion, value: AnswerValue, rules: Parameters<typeof markAnswer>[2] = free) =>
		markAnswer(question, value, rules).points;

	it('gives the points for right, nothing for blank', () => {
		expect([points(single, 'b'), points(single, 'a'), points(single, null)]).toEqual([2, 0, 0]);
		expect([points(truth, false), points(truth, true)]).toEqual([2, 0]);
		expect(markAnswer(numeric, '  ', free).verdict).toBe('blank');
		expect(markAnswer(numeric, 'deep', free).verdict).toBe('wrong');
	});

	it('takes the tolerance’s edge as inside, absolute or relative', () => {
		expect(['6.3', '6.5', '6,45', '6.29', '6.51'].map((typed) => points(numeric, typed))).toEqual([2, 2, 2, 0, 0]);
		const relative: DealtQuestion = { ...numeric, tolerance: { kind: 'relative', amount: 0.05 } };
		expect(['6.08', '6.72', '6.73'].map((typed) => points(relative, typed))).toEqual([2, 2, 0]);
	});

	it('costs what the rules say: a fixed amount, or what guessing would gain (R − W/(k−1), formula scoring)', () => {
		expect(points(single, 'a', { wrong: 'fixed', points: 0.5 })).toBe(-0.5);
		expect(points(single, 'a', { wrong: 'guessing' })).toBeCloseTo(-2 / 3, 12);
		expect(points(truth, true, { wrong: 'guessing' })).toBe(-2);
		expect(points(numeric, '1', { wrong: 'guessing' })).toBe(0);
		const everyChoice = ['a', 'b', 'c', 'd'].map((choice) => points(single, choice, { wrong: 'guessing' }));
		expect(everyChoice.reduce((sum, one) => sum + one, 0)).toBeCloseTo(0, 12);
	});
});

describe('dealing and marking a paper', () => {
	const many = Array.from({ length: 10 }, (_, i): DealtQuestion => ({ ...single, id: `p${i}` }));
	const paper: Paper = {
		title: 'Tides',
		parts: [
			{ title: 'A', questions: [truth, numeric], draw: null },
			{ title: 'B', questions: many, draw: 5 }
		]
	};
	const order = { questionsInOwnOrder: true, choicesInOwnOrder: true };

	it('gives the same form for the same seed, for ever', () => {
		fc.assert(
			fc.property(fc.integer(), (seed) => {
				expect(deal(paper, order, seed)).toEqual(deal(paper, order, seed));
			})
		);
		// Kept as dealt on the day this was written: a change here would deal running sittings anew.
		expect(deal(paper, order, 7).questions.map((question) => question.id)).toEqual([
			'q2',
			'q3',
			'p7',
			'p4',
			'p9',
			'p8',
			'p2'
		]);
	});

	it('deals every question once, in parts, with the key left out and pinned choices in place', () => {
		fc.assert(
			fc.property(fc.integer(), (seed) => {
				const { questions } = deal(paper, order, seed);
				expect(questions).toHaveLength(dealtCount(paper));
				expect(new Set(questions.map((question) => question.id)).size).toBe(7);
				expect(questions.map((question) => question.part).join('')).toBe('AABBBBB');
				expect(JSON.stringify(questions)).not.toContain('"answer"');
				for (const question of questions.filter((one) => one.kind === 'single')) {
					expect(question.choices![3].id).toBe('d');
					expect(question.choices!.map((choice) => choice.id).sort()).toEqual(['a', 'b', 'c', 'd']);
				}
			})
		);
	});

	it('shares k²/n questions between two candidates on average (hypergeometric mean): 2.5 for five of ten', () => {
		let shared = 0;
		for (let seed = 0; seed < 2_000; seed++) {
			const ids = (which: number) => new Set(deal(paper, order, which).questions.map((question) => question.id));
			const [a, b] = [ids(seed * 2), ids(seed * 2 + 1)];
			shared += [...a].filter((id) => id.startsWith('p') && b.has(id)).length;
		}
		// Standard error of the mean is about 0.019 here.
		expect(shared / 2_000).toBeGreaterThan(2.42);
		expect(shared / 2_000).toBeLessThan(2.58);
	});

	it('knows choices that point at others by their words, and lets the author overrule', () => {
		for (const text of ['All of the above', 'None of these', 'Both A and B', 'Neither of the above'])
			expect(keepsPlace({ id: 'x', text })).toBe(true);
		// A light above another points at no choice, and an article is no letter.
		for (const text of ['All round light', 'An all-round red light over a white one', 'All lights above the hull'])
			expect(keepsPlace({ id: 'x', text }), text).toBe(false);
		expect(keepsPlace({ id: 'x', text: 'None of these', pinned: false })).toBe(false);
	});

	it('marks what was dealt and nothing else', () => {
		const form = deal(paper, order, 3);
		const score = markForm(
			paper,
			form,
			new Map<string, AnswerValue>([
				['q2', false],
				['q3', '6.4'],
				['elsewhere', 'b']
			]),
			{ wrong: 'free' }
		);
		expect(score).toMatchObject({ points: 4, outOf: 14, blanks: 5 });
		expect(score.outOf).toBe(dealtPoints(paper));
		// Points for handing in early come on top, to the millisecond.
		const early = { wrong: 'free' as const, earlyMinutes: 10, earlyPoints: 1.5 };
		const withLeft = (leftMs: number | null) => markForm(paper, form, new Map([['q3', '6.4']]), early, { leftMs });
		const plain = withLeft(null);
		expect(withLeft(10 * 60_000)).toMatchObject({ early: 1.5, points: plain.points + 1.5, outOf: plain.outOf });
		expect(withLeft(10 * 60_000 - 1)).toMatchObject({ early: 0, points: plain.points });
		expect(markForm(paper, form, new Map(), { wrong: 'free' }, { leftMs: 3_600_000 }).early).toBe(0);
	});
});

describe('the other kinds of question', () => {
	const base = { stem: 'Which?', topic: 'tides', points: 4 };
	const of = (ids: string) => [...ids].map((id) => ({ id, text: id.toUpperCase() }));
	const multiple: DealtQuestion = {
		...base,
		id: 'm',
		kind: 'multiple',
		choices: of('abcde'),
		answer: ['a', 'b'],
		partial: true
	};
	const ordering: DealtQuestion = {
		...base,
		id: 'o',
		kind: 'ordering',
		choices: of('abcd'),
		answer: [...'abcd'],
		partial: true
	};
	const matching: DealtQuestion = {
		...base,
		id: 'x',
		kind: 'matching',
		items: of('ab'),
		matches: of('uvw'),
		answer: { a: 'u', b: 'v' },
		partial: true
	};
	const fillIn: DealtQuestion = {
		...base,
		id: 'f',
		kind: 'fill_in',
		stem: 'The [a] is [b]',
		gaps: [
			{ id: 'a', accepted: ['Sea'] },
			{ id: 'b', accepted: ['blue', 'bleu'] }
		],
		partial: true
	};
	const short: DealtQuestion = { ...base, id: 's', kind: 'short', accepted: ['São Miguel'] };
	const essay: DealtQuestion = { ...base, id: 'e', kind: 'essay', words: null };
	const points = (question: DealtQuestion, value: AnswerValue) => markAnswer(question, value, { wrong: 'free' }).points;

	// Common practice: right ones earn their share, wrong ones take one back, and nothing goes below nothing.
	it.each<[string, string[], number]>([
		['all right', ['a', 'b'], 4],
		['in any order', ['b', 'a'], 4],
		['one of two', ['a'], 2],
		['both and a wrong one', ['a', 'b', 'c'], 2],
		['one right, one wrong', ['a', 'c'], 0],
		['everything', [...'abcde'], 0],
		['only wrong ones', ['c', 'd'], 0],
		['the same one twice', ['a', 'a'], 2]
	])('multiple, %s', (_, chosen, expected) => expect(points(multiple, chosen)).toBe(expected));

	it('ordering, matching and gaps earn part of the points for part of them', () => {
		expect(points(ordering, [...'abcd'])).toBe(4);
		expect(points(ordering, [...'abdc'])).toBe(2);
		expect(points(ordering, [...'dabc'])).toBe(0);
		expect(points(matching, { a: 'u', b: 'w' })).toBe(2);
		expect(points(matching, { a: 'u', b: 'v' })).toBe(4);
		expect(points(fillIn, { a: 'SEA ', b: 'Bleu' })).toBe(4);
		expect(points(fillIn, { a: 'sea' })).toBe(2);
	});

	it('without partial credit it is all or nothing', () => {
		expect(points({ ...multiple, partial: false }, ['a'])).toBe(0);
		expect(points({ ...ordering, partial: false }, [...'abdc'])).toBe(0);
		expect(points({ ...matching, partial: false }, { a: 'u', b: 'v' })).toBe(4);
	});

	it('a short answer may be typed without accents and capitals', () => {
		for (const typed of ['São Miguel', 'sao miguel', ' SAO-MIGUEL ']) expect(points(short, typed)).toBe(4);
		expect(points(short, 'São Jorge')).toBe(0);
	});

	it('an essay waits for a person, and is neither right nor wrong meanwhile', () => {
		expect(markAnswer(essay, 'Because.', { wrong: 'fixed', points: 1 })).toMatchObject({
			verdict: 'to_mark',
			points: 0
		});
		expect(markAnswer(essay, '  ', { wrong: 'free' }).verdict).toBe('blank');
	});

	it('guessing is corrected only where one of several is chosen', () => {
		const cost = (question: DealtQuestion, value: AnswerValue) =>
			markAnswer(question, value, { wrong: 'guessing' }).points;
		expect(cost(multiple, ['c'])).toBe(0);
		expect(cost(short, 'wrong')).toBe(0);
		expect(cost(truth, true)).toBe(-2);
	});

	it('an answer of another shape earns nothing and breaks nothing', () => {
		const shapes: AnswerValue[] = [true, 'a', ['a'], { a: 'u' }];
		for (const question of [multiple, ordering, matching, fillIn, short, numeric, truth, single])
			for (const value of shapes) expect(points(question, value)).toBeLessThanOrEqual(question.points);
		expect(fitsQuestion({ ...deal(paperOf([multiple]), MIXED, 1).questions[0] }, 'a')).toBe(false);
	});

	it('the right answer earns full points for every kind, and fits the form that is dealt', () => {
		const questions = [single, truth, numeric, multiple, ordering, matching, fillIn, short];
		const form = deal(paperOf(questions), MIXED, 7);
		for (const question of questions) {
			expect(points(question, rightAnswer(question))).toBe(question.points);
			const dealt = form.questions.find((one) => one.id === question.id)!;
			expect(fitsQuestion(dealt, rightAnswer(question))).toBe(true);
		}
		expect(rightAnswer(essay)).toBeNull();
	});

	it('a form never carries a key: no accepted spelling, no right order, no pair', () => {
		const sent = JSON.stringify(deal(paperOf([multiple, ordering, matching, fillIn, short, essay]), MIXED, 3));
		for (const word of ['answer', 'accepted', 'partial', 'bleu', 'Miguel']) expect(sent).not.toContain(word);
	});

	it('steps to be ordered and matches are mixed even where choices keep the paper’s order', () => {
		const plain = { questionsInOwnOrder: false, choicesInOwnOrder: false };
		const orders = new Set<string>();
		for (let seed = 0; seed < 40; seed++)
			orders.add(
				deal(paperOf([ordering]), plain, seed)
					.questions[0].choices!.map((choice) => choice.id)
					.join('')
			);
		expect(orders.size).toBeGreaterThan(10);
	});

	const MIXED = { questionsInOwnOrder: true, choicesInOwnOrder: true };
	const paperOf = (questions: DealtQuestion[]): Paper => ({
		title: 'P',
		parts: [{ title: 'All', questions, draw: null }]
	});
});

describe('answers', () => {
	it('words are counted as people count them', () => {
		expect(wordCount('A half-filled tank, 3 m deep – is it safe?')).toBe(9);
		expect(wordCount('  ')).toBe(0);
	});
	it('blank is blank in every shape', () => {
		const blanks: AnswerValue[] = [null, '', '  ', [], {}, { a: '' }];
		for (const value of blanks) expect(isBlank(value)).toBe(true);
		const given: AnswerValue[] = [false, '0', ['a'], { a: '', b: 'x' }];
		for (const value of given) expect(isBlank(value)).toBe(false);
	});
});
