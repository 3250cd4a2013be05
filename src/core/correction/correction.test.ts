import { describe, expect, it } from 'vitest';
import fc from 'fast-check';
import { markForm, treatmentsOf, type Correction, type MarkingRules } from '../marking';
import { deal, type AnswerValue, type Paper, type Question } from '../paper';
import { changesInWords, changesOf, correctionFault, correctionInWords, countChanges } from '.';

const choices = ['a', 'b', 'c', 'd'].map((id) => ({ id, text: `choice ${id}` }));
const shared = { points: 2, topic: '', stem: 'Q' };
const QUESTIONS: Question[] = [
	{ ...shared, id: 'single', kind: 'single', choices, answer: 'a' },
	{ ...shared, id: 'several', kind: 'multiple', choices, answer: ['a', 'b'], partial: true },
	{ ...shared, id: 'number', kind: 'numeric', answer: 4, tolerance: { kind: 'absolute', amount: 0.1 }, unit: 'm' },
	{ ...shared, id: 'word', kind: 'short', accepted: ['ebb'] },
	{ ...shared, id: 'yes', kind: 'true_false', answer: true },
	{ ...shared, id: 'essay', kind: 'essay', words: null }
];
const PAPER: Paper = { title: 'P', parts: [{ title: 'A', questions: QUESTIONS, draw: null }] };
const FORM = deal(PAPER, { questionsInOwnOrder: false, choicesInOwnOrder: false }, 1);
const RULES: MarkingRules = { wrong: 'fixed', points: 0.5 };
const ANSWERS = new Map<string, AnswerValue>([
	['single', 'b'],
	['several', ['a']],
	['number', '5'],
	['word', 'Flood'],
	['yes', false],
	['essay', 'text']
]);
const scored = (corrections: [string, Correction][], answers = ANSWERS) =>
	markForm(PAPER, FORM, answers, RULES, {
		treatments: treatmentsOf(corrections.map(([questionId, correction]) => ({ questionId, correction }))),
		byHand: new Map([['essay', 1.5]])
	});
const of = (id: string, corrections: [string, Correction][]) =>
	scored(corrections).marks.find(({ questionId }) => questionId === id)!;

describe('corrections', () => {
	it.each<[string, Correction, object]>([
		['single', { kind: 'key', answer: 'b' }, { verdict: 'right', points: 2, outOf: 2 }],
		['single', { kind: 'accept', answer: 'b' }, { verdict: 'right', points: 2 }],
		['single', { kind: 'accept', answer: 'c' }, { verdict: 'wrong', points: -0.5 }],
		['single', { kind: 'for_all' }, { points: 2, outOf: 2, treated: 'for_all' }],
		['single', { kind: 'leave_out' }, { points: 0, outOf: 0, treated: 'left_out' }],
		['single', { kind: 'keep' }, { verdict: 'wrong', points: -0.5 }],
		['several', { kind: 'key', answer: ['a'] }, { verdict: 'right', points: 2 }],
		['several', { kind: 'points', points: 6 }, { verdict: 'partly', points: 3, outOf: 6 }],
		['number', { kind: 'key', answer: '5.05' }, { verdict: 'right' }],
		['word', { kind: 'accept', answer: 'flood' }, { verdict: 'right', points: 2 }],
		['yes', { kind: 'key', answer: false }, { verdict: 'right' }],
		// A person gave 1.5 of 2; worth 4 that is 3.
		['essay', { kind: 'points', points: 4 }, { verdict: 'partly', points: 3, outOf: 4 }]
	])('%s: %o', (id, correction, expected) => expect(of(id, [[id, correction]])).toMatchObject(expected));

	it('property: whatever was corrected, taking it all back gives the first marks', () => {
		const correction = fc.oneof(
			fc.constantFrom<Correction>({ kind: 'for_all' }, { kind: 'leave_out' }, { kind: 'keep' }),
			fc.constantFrom('a', 'b', 'c', 'd').map((answer): Correction => ({ kind: 'key', answer })),
			fc.constantFrom('a', 'b', 'c', 'd').map((answer): Correction => ({ kind: 'accept', answer })),
			fc.integer({ min: 1, max: 9 }).map((points): Correction => ({ kind: 'points', points }))
		);
		fc.assert(
			fc.property(fc.array(correction, { maxLength: 6 }), (all) => {
				const done = all.map((one): [string, Correction] => ['single', one]);
				expect(scored([...done, ['single', { kind: 'restore' }]])).toEqual(scored([]));
				// A correction never touches another question.
				expect(scored(done).marks.slice(1)).toEqual(scored([]).marks.slice(1));
			})
		);
	});

	it('a key and its opposite give the first marks', () => {
		expect(
			scored([
				['single', { kind: 'key', answer: 'b' }],
				['single', { kind: 'key', answer: 'a' }]
			])
		).toEqual(scored([]));
	});

	it('says what can’t be done, and what would', () => {
		const question = (id: string) => QUESTIONS.find((one) => one.id === id)!;
		expect(correctionFault(question('essay'), { kind: 'key', answer: 'x' })).toContain('A person marks');
		expect(correctionFault(question('single'), { kind: 'key', answer: 'z' })).toContain('Choose an answer');
		expect(correctionFault(question('number'), { kind: 'key', answer: 'many' })).toContain('Enter a number');
		expect(correctionFault(question('single'), { kind: 'points', points: 0 })).toContain('leave it out');
		expect(correctionFault(question('single'), { kind: 'key', answer: 'b' })).toBeNull();
		expect(correctionInWords(question('single'), { kind: 'key', answer: 'b' })).toBe(
			'The right answer is now “choice b”.'
		);
	});

	it('counts who gains, loses, passes, fails and moves a band, by share', () => {
		const rules = { passPercent: 50, bands: [{ fromPercent: 80, name: 'Merit', message: '' }] };
		const score = (sittingId: string, points: number, outOf = 10) => ({ sittingId, points, outOf, toMark: 0 });
		const changes = changesOf([
			{ before: score('same', 4), after: score('same', 4), rules },
			{ before: score('up', 4.9), after: score('up', 5), rules },
			{ before: score('down', 8), after: score('down', 7), rules },
			// Fewer points of fewer: a larger share.
			{ before: score('left', 4), after: score('left', 4, 8), rules },
			{ before: score('open', 4), after: { ...score('open', 6), toMark: 1 }, rules }
		]);
		expect(changes.map(({ sittingId, gain, pass }) => [sittingId, gain, pass])).toEqual([
			['up', 'up', 'now_passes'],
			['down', 'down', null],
			['left', 'up', 'now_passes'],
			['open', 'up', null]
		]);
		expect(changesInWords(countChanges(changes), 5)).toBe(
			'3 of 5 gain, 1 loses. 2 pass who did not. 1 moves to another band.'
		);
	});
});
