import fc from 'fast-check';
import { afterEach, beforeEach, describe, expect, it } from 'vitest';
import { deal, fitsQuestion, inlineOf, type AnswerValue, type FormQuestion, type Paper } from '$core/paper';
import { DEMO_PAPERS } from '../demo';
import { buildHouse, type House } from '../testing/house';
import { OwnIds } from './own-ids';
import { runs } from '$core/testing/runs';

let house: House;
beforeEach(async () => (house = await buildHouse()));
afterEach(() => house.close());

const ORDER = { questionsInOwnOrder: true, choicesInOwnOrder: true };
const papers: Paper[] = DEMO_PAPERS.map(({ paper }) => paper);
const idsOf = (question: FormQuestion): string[] => [
	question.id,
	...[question.choices, question.items, question.matches].flatMap((list) => (list ?? []).map(({ id }) => id)),
	...(question.gaps ?? [])
];
/** Some answer that a question takes. */
function answerTo(question: FormQuestion): fc.Arbitrary<AnswerValue> {
	const ids = (list: { id: string }[] = []) => list.map(({ id }) => id);
	switch (question.kind) {
		case 'true_false':
			return fc.boolean();
		case 'single':
			return fc.constantFrom(...ids(question.choices));
		case 'multiple':
		case 'ordering':
			return fc.shuffledSubarray(ids(question.choices));
		case 'matching':
			return fc.dictionary(fc.constantFrom(...ids(question.items)), fc.constantFrom('', ...ids(question.matches)));
		case 'fill_in':
			return fc.dictionary(fc.constantFrom(...question.gaps!), fc.string({ maxLength: 20 }));
		default:
			return fc.string({ maxLength: 40 });
	}
}

describe('the names on one candidate’s device', () => {
	it('every kind of question is among those that are tried', () => {
		const kinds = new Set(papers.flatMap((paper) => deal(paper, ORDER, 1).questions.map((question) => question.kind)));
		expect(kinds.size).toBeGreaterThanOrEqual(8);
	});

	it('are of no other, are not the paper’s, and say the same', () => {
		const seen = new Set<string>();
		for (const [nth, paper] of papers.entries())
			for (const sitting of ['a', 'b']) {
				const form = deal(paper, ORDER, nth);
				const ids = new OwnIds(house.otium.db, `${sitting}${nth}`, form.questions);
				const shown = form.questions.map((question) => ids.show(question));
				const own = shown.flatMap(idsOf);
				const real = new Set(form.questions.flatMap(idsOf));
				for (const id of own) {
					expect(real.has(id) || seen.has(id), id).toBe(false);
					expect(id).toMatch(/^[A-Za-z0-9]{12}$/);
					seen.add(id);
				}
				shown.forEach((question, i) => {
					const { choices, gaps } = form.questions[i];
					expect(question.choices?.map(({ text }) => text)).toEqual(choices?.map(({ text }) => text));
					// Each gap still stands where it stood.
					const gapsIn = inlineOf(question.stem, question.gaps).filter((piece) => piece.kind === 'gap');
					if (gaps) expect(gapsIn).toHaveLength(gaps.length);
				});
			}
	});

	it('go there and come back the same, whatever is answered', () => {
		for (const [nth, paper] of papers.entries()) {
			const form = deal(paper, ORDER, nth);
			const ids = new OwnIds(house.otium.db, `s${nth}`, form.questions);
			for (const question of form.questions)
				fc.assert(
					fc.property(answerTo(question), (value) => {
						const struck = (question.choices ?? []).slice(0, 2).map(({ id }) => id);
						const answer = { questionId: question.id, value, struck };
						const there = ids.toDevice(answer);
						expect(fitsQuestion(ids.show(question), there.value)).toBe(true);
						expect(ids.fromDevice(there)).toEqual(answer);
						// The paper's own names, which others may know, are no names here: of a question, or of what is in it.
						expect(ids.fromDevice(answer)).toBeNull();
						const parts = struck.length === 0 ? [] : ids.fromDevice({ ...there, struck })!.struck;
						for (const part of parts) expect(struck).not.toContain(part);
					}),
					{ numRuns: runs(10) }
				);
		}
	});
});
