import fc from 'fast-check';
import { expect, it } from 'vitest';
import { balanceOf, dealtPoints, type Paper, type Question } from '.';

const question = (topic: string, points: number, more: Partial<Question> = {}): Question =>
	({ id: Math.random().toString(36), kind: 'short', stem: '?', accepted: ['x'], topic, points, ...more }) as Question;

it('tells what each topic is worth, a pool by what is dealt of it', () => {
	const paper: Paper = {
		title: '',
		parts: [
			{ title: '', draw: null, questions: [question('Tides / Heights', 3, { difficulty: 'hard' }), question('', 1)] },
			{ title: '', draw: 1, questions: [question('Tides', 2, { difficulty: 'easy' }), question('Lights', 2)] }
		]
	};
	expect(balanceOf(paper)).toEqual([
		{ topic: 'Tides', points: { easy: 1, medium: 0, hard: 3, unknown: 0 }, sum: 4 },
		{ topic: 'Lights', points: { easy: 0, medium: 0, hard: 0, unknown: 1 }, sum: 1 },
		{ topic: 'No topic', points: { easy: 0, medium: 0, hard: 0, unknown: 1 }, sum: 1 }
	]);
	expect(balanceOf(paper, 2).map(({ topic }) => topic)).toContain('Tides / Heights');
});

it('adds up to the points that each candidate can reach', () => {
	const questions = fc.array(
		fc
			.tuple(fc.constantFrom('A', 'B / C', ''), fc.boolean())
			.map(([topic, isExtra]) => question(topic, 2, isExtra ? { isExtra: true } : {})),
		{ minLength: 1, maxLength: 6 }
	);
	fc.assert(
		fc.property(fc.array(questions, { minLength: 1, maxLength: 3 }), fc.nat(6), (parts, wanted) => {
			const paper: Paper = {
				title: '',
				parts: parts.map((questions, i) => ({ title: `${i}`, questions, draw: null }))
			};
			const pool = parts[0].filter(({ isExtra }) => !isExtra);
			// A pool has equal points in all its questions.
			if (pool.length > 0) paper.parts[0] = { title: '', questions: pool, draw: Math.min(wanted, pool.length) };
			const sum = balanceOf(paper).reduce((all, row) => all + row.sum, 0);
			expect(sum).toBeCloseTo(dealtPoints(paper), 9);
		})
	);
});
