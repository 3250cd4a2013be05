import { describe, expect, it } from 'vitest';
import { deal, type Paper } from '../paper';
import { practised, shareAfter, tryQuestion } from '.';

const paper: Paper = {
	title: 'Practice',
	practice: { tries: 3, costPercent: 50 },
	parts: [
		{
			title: 'All',
			draw: null,
			questions: [
				{
					id: 'q1',
					kind: 'single',
					stem: 'Which?',
					points: 4,
					topic: '',
					choices: ['a', 'b', 'c'].map((id) => ({ id, text: id })),
					answer: 'b',
					feedback: { right: 'Well seen.', wrong: 'Look at the middle.' }
				},
				{ id: 'q2', kind: 'essay', stem: 'Why?', points: 2, topic: '', rubric: '' }
			]
		}
	]
} as never;
const form = deal(paper, { questionsInOwnOrder: false, choicesInOwnOrder: true }, 7);
const trying = (value: unknown, tries: number, id = 'q1') =>
	tryQuestion(paper, form, id, value as never, tries, paper.practice!);

describe('trying again at once', () => {
	it('costs its share of the points with each wrong try, and never goes below nothing', () => {
		expect(trying('b', 1)).toMatchObject({ verdict: 'right', points: 4, triesLeft: 0, feedback: 'Well seen.' });
		expect(trying('b', 2)).toMatchObject({ verdict: 'right', points: 2 });
		expect(trying('b', 3)).toMatchObject({ verdict: 'right', points: 0 });
		expect([0, 1, 2, 3].map((wrong) => shareAfter(wrong, { tries: 9, costPercent: 40 }))).toEqual([
			1,
			0.6,
			expect.closeTo(0.2),
			0
		]);
	});

	it('tells that it was wrong and how many tries are left, and nothing of the key', () => {
		const wrong = trying('a', 1)!;
		expect(wrong).toEqual({
			verdict: 'wrong',
			points: 0,
			outOf: 4,
			triesLeft: 2,
			feedback: 'Look at the middle.',
			hint: null
		});
		expect(trying('a', 3)).toMatchObject({ triesLeft: 0 });
	});

	it('what a person would have to mark has no verdict, and a question of another paper is none', () => {
		expect(trying('Because.', 1, 'q2')).toMatchObject({ verdict: 'to_mark', points: null, triesLeft: 0 });
		expect(trying('a', 1, 'nope')).toBeNull();
	});

	it('gives its hint for the asking, once a try was wrong, or never', () => {
		const hinted = structuredClone(paper);
		hinted.parts[0].questions[0].hint = 'Not the first.';
		const dealt = deal(hinted, { questionsInOwnOrder: false, choicesInOwnOrder: false }, 1);
		const seen = (hints?: 'asked' | 'after_wrong' | 'never') => {
			const rules = { ...paper.practice!, hints };
			const tried = ['a', 'b'].map((value) => tryQuestion(hinted, dealt, 'q1', value, 1, rules)!.hint);
			return [practised(dealt, rules).questions[0].hint ?? null, ...tried];
		};
		expect(seen()).toEqual(['Not the first.', null, null]);
		expect(seen('after_wrong')).toEqual([null, 'Not the first.', null]);
		expect(seen('never')).toEqual([null, null, null]);
	});

	it('of a question with tries of its own goes by those', () => {
		const own = structuredClone(paper);
		own.parts[0].questions[0].practice = { tries: 5, costPercent: 10 };
		expect(tryQuestion(own, form, 'q1', 'b', 3, paper.practice!)).toMatchObject({ points: expect.closeTo(3.2) });
		expect(tryQuestion(own, form, 'q1', 'a', 3, paper.practice!)).toMatchObject({ triesLeft: 2 });
	});
});
