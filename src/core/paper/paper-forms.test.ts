import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import {
	balanceOf,
	comparePapers,
	deal,
	dealtCount,
	dealtPoints,
	doubtsOfPaper,
	eachGets,
	formFor,
	formsOf,
	printedDeal,
	putIn,
	sharedOnAverage,
	summarise,
	type FormLetter,
	type FormRule,
	type Paper,
	type Question
} from '.';
import { seatName } from '../seating';

const question = (id: string, points = 1): Question => ({
	id,
	kind: 'true_false',
	stem: `Is it ${id}?`,
	answer: true,
	points,
	topic: 'Lights',
	difficulty: 'easy',
	seconds: 60
});
const IDS = ['a', 'b', 'c', 'd', 'e', 'f'];
/** Two forms of three questions and one, `f`, that is in both; `c` is dealt in form A alone. */
const FORMED: Paper = {
	title: 'Lights',
	parts: [
		{ title: 'One', questions: IDS.slice(0, 3).map((id) => question(id)), draw: 2, strata: { easy: 2 } },
		{ title: 'Two', questions: IDS.slice(3).map((id) => question(id)), draw: null }
	],
	forms: [
		{ name: 'A', questions: ['a', 'c', 'f', 'gone'] },
		{ name: 'B', questions: ['f', 'e', 'b'] }
	]
};
const ORDER = { questionsInOwnOrder: false, choicesInOwnOrder: false };
const NOWHERE = { site: null, group: null, seat: null };
const idsOf = ({ questions }: { questions: { id: string }[] }) => questions.map(({ id }) => id);

describe('a paper in forms', () => {
	it('deals all questions of a form, in the paper’s order, under its parts', () => {
		expect(deal(FORMED, ORDER, 1, 'A')).toMatchObject({ name: 'A', seed: 1 });
		expect(deal(FORMED, ORDER, 1, 'A').questions.map(({ id, part }) => `${part} ${id}`)).toEqual([
			'One a',
			'One c',
			'Two f'
		]);
		expect(idsOf(deal(FORMED, ORDER, 1, 'B'))).toEqual(['b', 'e', 'f']);
		expect(deal({ ...FORMED, forms: undefined }, ORDER, 1)).not.toHaveProperty('name');
	});

	it('told by the same figures as by counting: two forms, and every question in how many of them', () => {
		expect([dealtCount(FORMED), dealtPoints(FORMED)]).toEqual([3, 3]);
		// Two candidates, each with one of two forms by chance: A A, A B, B A, B B share 3, 1, 1 and 3.
		expect(sharedOnAverage(FORMED)).toBe((3 + 1 + 1 + 3) / 4);
		expect(summarise(FORMED)).toMatchObject({ questions: 3, pools: [], suggestedMinutes: 5 });
		expect(summarise(FORMED).forms).toEqual([
			{ name: 'A', questions: 3, points: 3 },
			{ name: 'B', questions: 3, points: 3 }
		]);
		expect(balanceOf(FORMED)).toMatchObject([{ topic: 'Lights', sum: 3 }]);
		const said = eachGets(FORMED)
			.map(({ text }) => text)
			.join('');
		expect(said).toContain('3 of 6 questions, 3 points in each of 2 forms');
		expect(said).toContain('Two neighbours share 2 on average, where forms are drawn.');
	});

	it('is printed form by form in the paper’s order first, then mixed', () => {
		expect([1, 2, 3, 4].map((number) => printedDeal(FORMED, number).name)).toEqual(['A', 'B', 'A', 'B']);
		expect(idsOf(printedDeal(FORMED, 2))).toEqual(['b', 'e', 'f']);
		expect(idsOf(printedDeal(FORMED, 4)).sort()).toEqual(['b', 'e', 'f']);
	});

	it('says what is wrong with its forms', () => {
		const codes = (paper: Paper) => doubtsOfPaper(paper).map(({ code, isGrave }) => `${code}${isGrave ? '!' : ''}`);
		expect(codes(FORMED)).toEqual(['in_no_form']);
		expect(doubtsOfPaper(FORMED)[0]).toMatchObject({
			questionIds: ['d'],
			text: 'One question is in no form: nobody gets it.'
		});
		const less = { ...FORMED, forms: putIn(FORMED.forms!, 'B', 'e') };
		expect(codes(less)).toEqual(['forms_differ!', 'in_no_form']);
		expect(putIn(less.forms, 'B', 'e').map(({ questions }) => questions.length)).toEqual([4, 3]);
	});

	it('compares by what is in the forms', () => {
		const about = (after: Paper) => comparePapers(FORMED, after).about;
		expect(
			about({
				...FORMED,
				forms: FORMED.forms!.map((one) => ({ ...one, questions: one.questions.filter((id) => id !== 'gone') }))
			})
		).toEqual([]);
		expect(about({ ...FORMED, forms: putIn(FORMED.forms!, 'A', 'd') })).toEqual(['Its forms have other questions.']);
		expect(about({ ...FORMED, forms: undefined })).toEqual(['It has no forms any more.']);
	});
});

describe('which form somebody gets', () => {
	const paperOf = (count: number): Pick<Paper, 'forms'> => ({
		forms: (['A', 'B', 'C', 'D', 'E', 'F'] as FormLetter[]).slice(0, count).map((name) => ({ name, questions: [] }))
	});

	it('is one for all, by site, by group; and drawn where that says nothing', () => {
		const place = { seed: 7, site: 4, group: 1, seat: null };
		const by = (rule: FormRule) => formFor(paperOf(3), rule, place);
		expect((['B', 'site', 'group', 'seat', 'dealt', 'F'] as const).map(by)).toEqual(['B', 'B', 'B', 'B', 'B', 'B']);
		expect(formFor(paperOf(3), 'site', { ...place, site: 0 })).toBe('A');
		expect(formFor(paperOf(3), 'group', { ...place, group: 2 })).toBe('C');
		expect(formFor({}, 'A', place)).toBeNull();
	});

	it('is never a neighbour’s by seat: beside, before and behind; with four forms or more across a corner too', () => {
		const STEPS = [
			[0, 1],
			[1, 0],
			[1, 1],
			[1, -1]
		];
		fc.assert(
			fc.property(
				fc.integer({ min: 2, max: 6 }),
				fc.integer({ min: 0, max: 40 }),
				fc.integer({ min: 1, max: 30 }),
				fc.constantFrom(...STEPS),
				(forms, row, column, [down, right]) => {
					if (forms < 4 && down !== 0 && right !== 0) return;
					const perRow = 40;
					const at = (r: number, c: number) =>
						formFor(paperOf(forms), 'seat', { ...NOWHERE, seed: 1, seat: seatName(r * perRow + c, perRow) });
					expect(at(row, column)).not.toBe(at(row + down, column + right));
				}
			)
		);
	});

	it('drawn by chance comes about equally often', () => {
		const counts = new Map<string, number>();
		for (let seed = -300; seed < 300; seed++) {
			const name = formFor(paperOf(3), 'dealt', { ...NOWHERE, seed })!;
			counts.set(name, (counts.get(name) ?? 0) + 1);
		}
		expect([...counts.values()].every((count) => Math.abs(count - 200) <= 1)).toBe(true);
		expect(formsOf({ title: '', parts: [] })).toEqual([]);
	});
});
