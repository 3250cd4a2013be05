import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { DEFAULT_RULES, forwardBy, mayBeSent, mayGoOn, mayJump, mayTurn, pageAt, type MovementRules } from '.';

const rules = (change: Partial<MovementRules>): MovementRules => ({ ...DEFAULT_RULES.movement, ...change });
const nothing = () => false;

describe('where somebody stands', () => {
	it.each([
		['one at a time', rules({ shown: 'one' }), 3, { number: 3, from: 3, to: 4, isFirst: false, isLast: false }],
		['four on a page', rules({ shown: 'pages', perPage: 4 }), 9, { number: 2, from: 8, to: 10, isLast: true }],
		['all on one', rules({ shown: 'all' }), 9, { number: 0, from: 0, to: 10, isFirst: true, isLast: true }]
	])('%s', (_, movement, at, page) => expect(pageAt(movement, 10, at)).toMatchObject(page));

	it('every question stands on one page, and the pages follow each other without a gap', () =>
		fc.assert(
			fc.property(anyRules(), fc.integer({ min: 1, max: 60 }), (movement, questions) => {
				let from = 0;
				while (from < questions) {
					const page = pageAt(movement, questions, from);
					expect(page.from).toBe(from);
					for (let i = page.from; i < page.to; i++) expect(pageAt(movement, questions, i)).toEqual(page);
					from = page.to;
				}
				expect(pageAt(movement, questions, questions - 1).isLast).toBe(true);
			})
		));
});

describe('how one may move', () => {
	it('forward only: never back, never past the next page', () => {
		const movement = rules({ shown: 'pages', perPage: 3, goingBack: false });
		const page = pageAt(movement, 9, 4);
		expect(mayTurn(movement, page, -1, { isAnswered: nothing, readsOnly: true })).toBe(false);
		expect([0, 2, 3, 5, 6].map((to) => mayJump(movement, 9, 4, to, nothing))).toEqual([
			false,
			false,
			true,
			true,
			false
		]);
	});

	it('forward only: a device is sent the page that was reached, and nothing before or behind it', () => {
		const movement = rules({ shown: 'pages', perPage: 3, goingBack: false });
		expect([[], [0, 2], [4], [4, 1], [8]].map((touched) => mayBeSent(movement, 9, touched))).toMatchObject([
			{ from: 0, to: 3 },
			{ from: 0, to: 3 },
			{ from: 3, to: 6 },
			{ from: 3, to: 6 },
			{ from: 6, to: 9 }
		]);
		expect(mayBeSent(rules({ shown: 'pages', perPage: 3, goingBack: true }), 9, [4])).toEqual({ from: 0, to: 9 });
		expect(mayBeSent(rules({ shown: 'all', goingBack: false }), 9, [4])).toEqual({ from: 0, to: 9 });
		expect(mayTurn(movement, pageAt(movement, 9, 4), 1, { isAnswered: nothing, readsOnly: true })).toBe(false);
	});

	it('answer to go on: blanks hold up, back is free, and reading afterwards is free', () => {
		const movement = rules({ shown: 'pages', perPage: 2, goingBack: true, answerToGoOn: true });
		const answered = (index: number) => index < 3;
		const page = pageAt(movement, 8, 2);
		expect(mayGoOn(movement, page, answered)).toBe(false);
		expect(mayTurn(movement, page, 1, { isAnswered: answered, readsOnly: false })).toBe(false);
		expect(mayTurn(movement, page, 1, { isAnswered: answered, readsOnly: true })).toBe(true);
		expect(mayTurn(movement, page, -1, { isAnswered: answered, readsOnly: false })).toBe(true);
		expect([0, 3, 4].map((to) => mayJump(movement, 8, 2, to, answered))).toEqual([true, true, false]);
	});

	it('a jump never reaches what turning page by page could not', () =>
		fc.assert(
			fc.property(
				anyRules(),
				fc.array(fc.boolean(), { minLength: 1, maxLength: 30 }),
				fc.nat(),
				fc.nat(),
				(movement, answers, a, b) => {
					const [at, to] = [a % answers.length, b % answers.length];
					const isAnswered = (index: number) => answers[index];
					if (!mayJump(movement, answers.length, at, to, isAnswered)) return;
					let page = pageAt(movement, answers.length, at);
					const goal = pageAt(movement, answers.length, to).number;
					// Whoever stands on a page has come there: what lies before it was answered, where that is the rule.
					if (movement.answerToGoOn && !answers.slice(0, page.from).every(Boolean)) return;
					while (page.number !== goal) {
						const by = goal > page.number ? 1 : -1;
						expect(mayTurn(movement, page, by, { isAnswered, readsOnly: false })).toBe(true);
						page = pageAt(movement, answers.length, by === 1 ? page.to : page.from - 1);
					}
				}
			)
		));

	it('nothing is forward only where going back is allowed or all is on one page', () => {
		expect(forwardBy(rules({ goingBack: true }))).toBeNull();
		expect(forwardBy(rules({ goingBack: false, shown: 'all' }))).toBeNull();
		expect(forwardBy(rules({ goingBack: false, shown: 'pages', perPage: 5 }))).toBe(5);
	});
});

function anyRules(): fc.Arbitrary<MovementRules> {
	return fc.record({
		shown: fc.constantFrom('one', 'pages', 'all'),
		perPage: fc.integer({ min: 1, max: 12 }),
		goingBack: fc.boolean(),
		answerToGoOn: fc.boolean(),
		answerAll: fc.boolean()
	});
}
