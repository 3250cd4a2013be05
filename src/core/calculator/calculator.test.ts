import fc from 'fast-check';
import { describe, expect, it } from 'vitest';
import { calculate, showValue } from '.';

const shown = (
	typed: string,
	kind: 'basic' | 'scientific' = 'scientific',
	angle: 'degrees' | 'radians' = 'degrees'
) => {
	const result = calculate(typed, kind, angle);
	return result.ok ? showValue(result.value) : result.message;
};

describe('the calculator', () => {
	// The rules of arithmetic, and values that every table of functions has.
	it.each([
		['2+3*4', '14'],
		['(2+3)×4', '20'],
		['2 − 5', '-3'],
		['7 ÷ 2', '3.5'],
		['0,1 + 0,2', '0.3'],
		['-2^2', '-4'],
		['2^3^2', '512'],
		['200 * 5%', '10'],
		['sin(30)', '0.5'],
		['cos(60)', '0.5'],
		['tan(45)', '1'],
		['asin(0.5)', '30'],
		['√2', '1.41421356237'],
		['√(16+9)', '5'],
		['log(1000)', '3'],
		['ln(e)', '1'],
		['2π', '6.28318530718'],
		['1.2e3 + 1', '1201']
	])('%s is %s', (typed, value) => expect(shown(typed)).toBe(value));

	it('takes angles in radians when told', () => expect(shown('sin(pi/2)', 'scientific', 'radians')).toBe('1'));

	it.each(['2+', '(3', '1/0', '', 'sqrt(-1)', '5 5 +'])('%j is told, not thrown', (typed) => {
		const result = calculate(typed, 'scientific');
		expect(result.ok === false && result.message.length > 5).toBe(true);
	});

	it('a basic one has no functions', () => {
		expect(shown('12*3', 'basic')).toBe('36');
		for (const typed of ['sin(30)', 'pi', '2^3', '√4']) expect(calculate(typed, 'basic').ok, typed).toBe(false);
	});

	it('does nothing but reckon: no assignment, no definition, no other function of the library', () => {
		for (const typed of ['a=3', 'f(x)=x', 'import(1)', 'evaluate("2")', 'random()', 'constructor', 'x'.repeat(300)])
			expect(calculate(typed, 'scientific').ok, typed).toBe(false);
	});

	it('agrees with the platform on every sum and product', () => {
		const number = fc.integer({ min: -9_999, max: 9_999 });
		fc.assert(
			fc.property(number, number, number, (a, b, c) => {
				const result = calculate(`(${a})+(${b})*(${c})`, 'basic');
				expect(result).toEqual({ ok: true, value: a + b * c });
			})
		);
	});

	it('never throws, whatever is typed', () => {
		fc.assert(
			fc.property(fc.string({ maxLength: 60 }), (typed) => typeof calculate(typed, 'scientific').ok === 'boolean')
		);
	});
});
