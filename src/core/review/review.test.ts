import { describe, expect, it } from 'vitest';
import { deal, type AnswerValue, type Paper } from '../paper';
import { DEFAULT_RULES } from '../session';
import { answerInWords, mayReview, reviewOf } from '.';

const paper: Paper = {
	title: 'P',
	parts: [
		{
			title: 'All',
			draw: null,
			questions: [
				{ id: 'a', kind: 'true_false', stem: 'Sea?', answer: true, points: 1, topic: '' },
				{
					id: 'b',
					kind: 'single',
					stem: 'Which?',
					choices: [
						{ id: 'x', text: 'Port' },
						{ id: 'y', text: 'Starboard' }
					],
					answer: 'y',
					points: 3,
					topic: ''
				}
			]
		}
	]
};
const form = deal(paper, { questionsInOwnOrder: false, choicesInOwnOrder: false }, 1);
const given = new Map<string, AnswerValue>([
	['a', true],
	['b', 'x']
]);
const look = (shows: 'score' | 'own_answers' | 'key', passPercent: number | null = null, answers = given) =>
	reviewOf(paper, form, answers, {
		marking: { wrong: 'free', points: 0 },
		review: { shows, when: 'at_once' },
		result: { passPercent, creditPercent: 80, bands: [{ fromPercent: 25, name: 'Sound', message: 'Go on like this.' }] }
	});

describe('looking back', () => {
	it.each([
		['nothing', 'at_once', true, true, true, false],
		['score', 'at_once', true, false, false, true],
		['score', 'at_once', false, true, true, false],
		['score', 'session_ended', true, false, true, false],
		['score', 'session_ended', true, true, false, true],
		['key', 'all_finished', true, true, false, false],
		['key', 'all_finished', true, true, true, true],
		// The key is nobody's while somebody can still sit the paper, whatever else the rules say of when.
		['key', 'at_once', true, true, false, false],
		['key', 'session_ended', true, true, false, false],
		['key', 'at_once', true, false, true, true]
	] as const)(
		'%s, %s: handed in %s, session over %s, nobody owes it %s gives %s',
		(shows, when, handedIn, sessionOver, nobodyOwes, may) =>
			expect(mayReview({ shows, when }, { handedIn, sessionOver, nobodyOwes })).toBe(may)
	);

	it('shows a score alone, or answers without saying which were right, or everything', () => {
		expect(look('score')).toEqual({
			points: 1,
			outOf: 4,
			toMark: 0,
			passed: null,
			band: { name: 'Sound', message: 'Go on like this.' },
			questions: null
		});
		const own = look('own_answers').questions!;
		expect(own.map((one) => one.given)).toEqual([true, 'x']);
		expect(JSON.stringify(own)).not.toMatch(/"right":(true|"y")|"verdict":"/);
		expect(look('key').questions!.map((one) => [one.verdict, one.points, one.right])).toEqual([
			['right', 1, true],
			['wrong', 0, 'y']
		]);
	});

	it('says what the author says to an answer, with the right answers alone', () => {
		const [first, second] = paper.parts[0].questions;
		const feedback = { right: 'Well seen.', wrong: 'Look at the sea.' };
		const told: Paper = {
			...paper,
			parts: [
				{
					...paper.parts[0],
					questions: [
						{ ...first, feedback },
						{ ...second, feedback, isExtra: true }
					]
				}
			]
		};
		const rules = (shows: 'own_answers' | 'key') => ({
			marking: { wrong: 'free' as const, points: 0 },
			review: { shows, when: 'at_once' as const },
			result: { passPercent: null, bands: [], creditPercent: 80 }
		});
		const shown = reviewOf(told, form, given, rules('key'));
		expect(shown.questions!.map((one) => one.feedback)).toEqual(['Well seen.', 'Look at the sea.']);
		expect(JSON.stringify(reviewOf(told, form, given, rules('own_answers')))).not.toContain('sea.');
		// What counts on top adds nothing to what there is to reach.
		expect([shown.points, shown.outOf]).toEqual([1, 1]);
	});

	it('passes at the mark itself, and says nothing where there is none', () => {
		expect(look('score', 25).passed).toBe(true);
		expect(look('score', 26).passed).toBe(false);
		expect(look('score').passed).toBeNull();
	});

	it('tells answers in the words of the question', () => {
		expect(answerInWords(form.questions[1], 'y')).toBe('Starboard');
		expect(answerInWords(form.questions[0], false)).toBe('False');
		expect(answerInWords(form.questions[0], null)).toBe('');
		const matching = {
			id: 'm',
			part: '',
			kind: 'matching' as const,
			stem: '',
			points: 1,
			items: [{ id: 'i', text: 'Red' }],
			matches: [{ id: 'j', text: 'Port' }]
		};
		expect(answerInWords(matching, { i: 'j' })).toBe('Red: Port');
	});

	it('nothing is shown unless a rule says so', () => expect(DEFAULT_RULES.review.shows).toBe('nothing'));
});
