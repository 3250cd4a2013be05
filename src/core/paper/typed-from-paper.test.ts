import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { fitsQuestion, isBlank, readTyped, typedFrom, type AnswerValue, type FormQuestion } from '.';

const question = (more: Partial<FormQuestion>): FormQuestion => ({
	id: 'q',
	part: 'All',
	kind: 'short',
	stem: '?',
	points: 1,
	...more
});
const list = (n: number, name: string) => Array.from({ length: n }, (_, i) => ({ id: `${name}${i}`, text: `${i}` }));
const read = (one: FormQuestion, text: string) => {
	const typed = readTyped(one, text);
	return typed.ok ? typed.value : typed.why;
};

describe('what was written on paper, typed in', () => {
	it('reads letters, pairs and gaps as people write them', () => {
		const single = question({ kind: 'single', choices: list(4, 'c') });
		expect(read(single, ' b ')).toBe('c1');
		expect(read(single, 'E')).toBe('Type one letter, A to D.');
		expect(read(single, 'A B')).toBe('Type one letter, A to D.');
		const multiple = question({ kind: 'multiple', choices: list(4, 'c') });
		for (const text of ['AC', 'a, c', 'A and C', 'A;C', 'a/c']) expect(read(multiple, text)).toEqual(['c0', 'c2']);
		expect(read(multiple, 'A, A')).toBe('Type letters, A to D, each once: A, C.');
		expect(read(multiple, 'none')).toMatch(/^Type letters/);
		expect(read(question({ kind: 'ordering', choices: list(3, 'c') }), 'CAB')).toEqual(['c2', 'c0', 'c1']);
		const matching = question({ kind: 'matching', items: list(3, 'i'), matches: list(4, 'm') });
		for (const text of ['1 B, 3 D', '1b 3d', '1: B; 3: D', '1-b,3-d'])
			expect(read(matching, text)).toEqual({ i0: 'm1', i2: 'm3' });
		for (const text of ['4 A', '1 E', '1 A 1 B', 'B', '1 A and', 'ab'])
			expect(read(matching, text)).toBe('Type each number, 1 to 3, with its letter, A to D: 1 B, 2 A.');
		const gaps = question({ kind: 'fill_in', gaps: ['x', 'y'] });
		expect(read(gaps, 'ebb; flood')).toEqual({ x: 'ebb', y: 'flood' });
		expect(read(gaps, '; flood')).toEqual({ y: 'flood' });
		expect(read(gaps, 'a; b; c')).toBe('There are 2 gaps, with ; between.');
		const statement = question({ kind: 'true_false' });
		expect([read(statement, 't'), read(statement, 'False'), read(statement, 'x')]).toEqual([
			true,
			false,
			'Type T or F.'
		]);
		expect(read(question({ kind: 'upload', most: 2 }), 'x')).toBe('Add a scan of it instead.');
		expect(read(single, '  ')).toBeNull();
	});

	it('comes back as it was, and always fits its question', () => {
		const ids = (n: number, name: string) => list(n, name).map(({ id }) => id);
		const text = fc.string({ minLength: 1, maxLength: 40 }).map((one) => one.replaceAll(';', ',').trim());
		const cases: fc.Arbitrary<[FormQuestion, AnswerValue]> = fc.integer({ min: 2, max: 30 }).chain((n) =>
			fc.oneof(
				fc.boolean().map((value) => [question({ kind: 'true_false' }), value] as [FormQuestion, AnswerValue]),
				fc
					.constantFrom(...ids(n, 'c'))
					.map((id) => [question({ kind: 'single', choices: list(n, 'c') }), id] as [FormQuestion, AnswerValue]),
				fc
					.shuffledSubarray(ids(n, 'c'))
					.map((some) => [question({ kind: 'ordering', choices: list(n, 'c') }), some] as [FormQuestion, AnswerValue]),
				fc
					.dictionary(fc.constantFrom(...ids(n, 'i')), fc.constantFrom(...ids(n, 'm')))
					.map((of) => [
						question({ kind: 'matching', items: list(n, 'i'), matches: list(n, 'm') }),
						of
					]) as fc.Arbitrary<[FormQuestion, AnswerValue]>,
				fc
					.dictionary(fc.constantFrom(...ids(n, 'g')), text)
					.map((of) => [question({ kind: 'fill_in', gaps: ids(n, 'g') }), of]) as fc.Arbitrary<
					[FormQuestion, AnswerValue]
				>,
				text.map((value) => [question({ kind: 'short' }), value] as [FormQuestion, AnswerValue])
			)
		);
		fc.assert(
			fc.property(cases, ([one, given]) => {
				const typed = readTyped(one, typedFrom(one, given));
				if (!typed.ok) throw new Error(typed.why);
				expect(fitsQuestion(one, typed.value)).toBe(true);
				const plain = isBlank(given)
					? null
					: one.kind === 'fill_in'
						? Object.fromEntries(Object.entries(given as object).filter(([, part]) => part !== ''))
						: given;
				expect(typed.value).toEqual(plain);
			})
		);
		fc.assert(
			fc.property(cases, fc.string({ maxLength: 30 }), ([one], any) => {
				const typed = readTyped(one, any);
				if (typed.ok) expect(fitsQuestion(one, typed.value)).toBe(true);
			})
		);
	});
});
