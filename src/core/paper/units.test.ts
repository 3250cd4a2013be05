import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	askForWorking,
	deal,
	dealtCount,
	dealtPoints,
	doubtsOfPaper,
	inForm,
	leadOf,
	sharedOnAverage,
	summarise,
	unitsOf,
	type Paper,
	type Question
} from '.';

const question = (id: string, points = 1, follows?: string): Question => ({
	id,
	kind: 'true_false',
	stem: `Is it ${id}?`,
	answer: true,
	points,
	topic: '',
	...(follows ? { follows } : {})
});
/** Three questions with one step each, which stand together at the end. */
const STEPPED = [question('a'), question('b'), question('c')].concat(
	['a', 'b', 'c'].map((id) => question(`${id}2`, 2, id))
);
const pool = (questions: Question[], draw: number | null): Paper => ({
	title: 'Tides',
	parts: [{ title: 'One', questions, draw }]
});
const OWN = { questionsInOwnOrder: true, choicesInOwnOrder: true };
const idsOf = ({ questions }: { questions: { id: string }[] }) => questions.map(({ id }) => id);
const codes = (paper: Paper) => doubtsOfPaper(paper).map(({ code, isGrave }) => `${code}${isGrave ? '!' : ''}`);

describe('a question and those that go with it', () => {
	it('are dealt together and one behind the other, whatever is drawn and mixed', () => {
		fc.assert(
			fc.property(fc.integer(), fc.constantFrom(1, 2, 3, null), fc.boolean(), (seed, draw, questionsInOwnOrder) => {
				const dealt = deal(pool(STEPPED, draw), { ...OWN, questionsInOwnOrder }, seed).questions;
				expect(dealt).toHaveLength(2 * (draw ?? 3));
				dealt.forEach(({ id, isStep }, i) => {
					expect(isStep ?? false).toBe(i % 2 === 1);
					if (i % 2 === 1) expect(id).toBe(`${dealt[i - 1].id}2`);
				});
			})
		);
	});

	it('count as what they are together: 2 of 3 pairs are four questions, six points, and share 2 × 2²/3', () => {
		const paper = pool(STEPPED, 2);
		expect([dealtCount(paper), dealtPoints(paper)]).toEqual([4, 6]);
		expect(summarise(paper).pools).toEqual([{ title: 'One', draw: 2, of: 3, equalPoints: true }]);
		expect(sharedOnAverage(paper)).toBeCloseTo((2 * 2 ** 2) / 3, 12);
		expect(codes(paper)).toEqual([]);
	});

	it('come with it into a form', () => {
		const paper = { ...pool(STEPPED, null), forms: [{ name: 'A' as const, questions: ['c', 'a'] }] };
		expect(idsOf(inForm(paper, 'A').parts[0])).toEqual(['a', 'a2', 'c', 'c2']);
	});

	it('in a pool must be as many, and worth as much, for everyone', () => {
		expect(codes(pool([...STEPPED, question('d', 3)], 2))).toEqual(['steps_differ!']);
		expect(codes(pool([...STEPPED, question('d', 1)], 2))).toEqual(['points_differ!']);
		expect(codes(pool([...STEPPED, question('d', 3)], null))).toEqual([]);
	});

	it('stand alone where the other is missing, or goes with one itself', () => {
		const loose = [
			question('a'),
			question('b', 1, 'a'),
			question('c', 1, 'b'),
			question('d', 1, 'gone'),
			question('e', 1, 'e')
		];
		expect(unitsOf(loose).map((unit) => unit.map(({ id }) => id))).toEqual([['a', 'b'], ['c'], ['d'], ['e']]);
		expect(loose.map((one) => leadOf(loose, one)?.id)).toEqual([undefined, 'a', undefined, undefined, undefined]);
		expect(codes(pool(loose, null))).toEqual(['steps_apart', 'steps_apart', 'steps_apart']);
	});

	it('are every question once, in any arrangement', () => {
		const anyPaper = fc
			.uniqueArray(fc.constantFrom('a', 'b', 'c', 'd', 'e'), { minLength: 1 })
			.chain((ids) =>
				fc.tuple(
					...ids.map((id) =>
						fc.option(fc.constantFrom('a', 'b', 'c', 'd', 'e', 'x')).map((to) => question(id, 1, to ?? undefined))
					)
				)
			);
		fc.assert(
			fc.property(anyPaper, fc.integer(), (questions, seed) => {
				const dealt = idsOf(deal(pool(questions, null), OWN, seed));
				expect([...dealt].sort()).toEqual(questions.map(({ id }) => id).sort());
			})
		);
	});

	it('as the working that is asked for: an essay behind it, or behind what it goes with itself', () => {
		const asked = askForWorking(question('a2', 1, 'a'), () => 'new');
		expect(asked).toMatchObject({ id: 'new', kind: 'essay', follows: 'a', stem: 'Show how you came to your answer.' });
	});
});
