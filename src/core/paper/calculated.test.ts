import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { markForm } from '../marking';
import {
	asDealt,
	answerFor,
	asDrawn,
	calculatedFault,
	deal,
	doubtsOf,
	draw,
	examplesOf,
	printedForm,
	renameQuestion,
	type CalculatedQuestion,
	type Paper
} from '.';

/** The rule of twelfths, and a range: what a watchkeeper reckons. */
const RANGE: CalculatedQuestion = {
	id: 'range',
	kind: 'calculated',
	stem: 'High water is {high} m, low water {low} m. What is the range? {other} stays.',
	points: 2,
	topic: 'Tides',
	parameters: [
		{ name: 'high', from: 4, to: 6, step: 0.1 },
		{ name: 'low', values: [0.5, 1, 4.5] }
	],
	conditions: ['high > low + 1'],
	formula: 'high - low',
	tolerance: { kind: 'absolute', amount: 0.05 },
	unit: 'm',
	inOther: { pt: { stem: 'Preia-mar {high} m, baixa-mar {low} m. Qual é a amplitude?' } }
};
const paper: Paper = { title: 'Tides', parts: [{ title: '', draw: null, questions: [RANGE] }] };
const ORDER = { questionsInOwnOrder: true, choicesInOwnOrder: true };
const FREE = { wrong: 'free' } as const;

describe('a calculated question', () => {
	it('is dealt with numbers of its own, the same for a seed for ever, that fulfil its conditions', () => {
		fc.assert(
			fc.property(fc.nat(2 ** 31), (seed) => {
				const form = deal(paper, ORDER, seed);
				expect(deal(paper, ORDER, seed)).toEqual(form);
				const [{ kind, stem, drawn, inOther }] = form.questions;
				expect(kind).toBe('numeric');
				expect(drawn!.high).toBeGreaterThan(drawn!.low + 1);
				// No trace of binary fractions: what stands in the text is what is reckoned with.
				expect(stem).toBe(
					`High water is ${drawn!.high} m, low water ${drawn!.low} m. What is the range? {other} stays.`
				);
				expect(inOther!.pt.stem).toContain(`Preia-mar ${drawn!.high} m`);
				expect(String(drawn!.high)).toMatch(/^\d(\.\d)?$/);
			})
		);
	});

	it('is marked by the numbers of each form, within its tolerance', () => {
		fc.assert(
			fc.property(fc.nat(2 ** 31), fc.constantFrom(0, 0.04, -0.05, 0.06), (seed, off) => {
				const form = deal(paper, ORDER, seed);
				const { high, low } = form.questions[0].drawn!;
				const given = ((Math.round(high * 10) - Math.round(low * 10)) / 10 + off).toFixed(2);
				const { points } = markForm(paper, form, new Map([['range', given]]), FREE);
				expect(points).toBe(Math.abs(off) <= 0.05 ? 2 : 0);
				expect(printedForm(paper, form)[0].key).toContain(String(Number((high - low).toFixed(6))));
			})
		);
	});

	it('reaches a candidate’s device without its formula and without the names of its numbers', () => {
		const [dealt] = deal(paper, ORDER, 7).questions;
		const sent = JSON.stringify(renameQuestion(dealt, () => 'own'));
		for (const secret of ['high', 'low', 'formula', 'drawn'])
			expect(sent.replace(dealt.stem, '')).not.toContain(`"${secret}"`);
		expect(asDealt(RANGE, dealt)).toMatchObject({ kind: 'numeric', stem: dealt.stem });
	});

	it('is shown by examples, with the least and the most', () => {
		let n = 0;
		const { examples, least, most } = examplesOf(RANGE, (all) => (n += 7) % (all + 1));
		expect(examples).toHaveLength(20);
		for (const { drawn, answer } of examples) expect(answer).toBeCloseTo(drawn.high - drawn.low, 9);
		expect(least!.answer).toBeLessThanOrEqual(Math.min(...examples.map(({ answer }) => answer)));
		expect(most!.answer).toBeGreaterThanOrEqual(Math.max(...examples.map(({ answer }) => answer)));
	});

	it.each([
		[{ parameters: [] }, 'no parameter'],
		[{ parameters: [{ name: 'high', from: 5, to: 4, step: 1 }] }, 'no values'],
		[{ parameters: [{ name: 'high', from: 1, to: 4, step: 0 }] }, 'no values'],
		[{ formula: 'high - tide' }, '“tide” is neither'],
		[{ formula: '' }, 'no formula'],
		[{ conditions: ['high >'] }, 'can’t be read'],
		[{ conditions: ['high > 100'] }, 'No numbers fulfil'],
		[{ formula: 'high / (low - 1)', conditions: [] }, 'There is no answer for high = 4, low = 1'],
		[{ formula: 'sqrt(low - high)', conditions: [] }, 'There is no answer']
	] as const)('that cannot be reckoned is told: %o', (change, message) => {
		const question = { ...RANGE, ...change } as CalculatedQuestion;
		expect(calculatedFault(question)).toContain(message);
		expect(doubtsOf(question, {}).find(({ isGrave }) => isGrave)?.text).toContain(message);
		// And nothing breaks where it is dealt all the same.
		expect(() => deal({ ...paper, parts: [{ title: '', draw: null, questions: [question] }] }, ORDER, 1)).not.toThrow();
	});

	it('endless decimals without a tolerance and a number that is not used are doubtful, not grave', () => {
		const third = { ...RANGE, formula: 'high / 3', tolerance: { kind: 'absolute', amount: 0 } } as CalculatedQuestion;
		const doubts = doubtsOf(third, {});
		expect(doubts.map(({ code, isGrave }) => [code, isGrave])).toEqual([
			['unused_parameter', false],
			['no_tolerance', false]
		]);
		expect(calculatedFault(RANGE)).toBeNull();
		expect(asDrawn(RANGE, { high: 5, low: 1 }).answer).toBe(4);
		expect(answerFor(RANGE, {})).toBeNaN();
		expect(draw({ ...RANGE, conditions: [] }, () => 0)).toEqual({ high: 4, low: 0.5 });
	});
});
