import { describe, expect, it } from 'vitest';
import { calculatorFor, type Allowed, type Lesser } from '.';

describe('the calculator beside a question', () => {
	const beside = (session: Allowed, ...questions: (Lesser | undefined)[]) =>
		calculatorFor(
			session,
			questions.map((calculator) => ({ calculator })),
			false
		);
	it('is the session’s, and never more; of several questions on a page the least', () => {
		expect(beside('basic')).toBe('basic');
		expect(beside('basic', undefined, 'basic')).toBe('basic');
		expect(beside('scientific', 'basic', undefined)).toBe('basic');
		expect(beside('scientific', 'basic', 'none')).toBe('none');
		expect(beside('none', 'basic')).toBe('none');
	});

	it('stays with whoever was granted one', () => {
		expect(calculatorFor('scientific', [{ calculator: 'none' }], true)).toBe('scientific');
	});
});
