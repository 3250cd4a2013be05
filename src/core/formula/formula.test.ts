import fc from 'fast-check';
import { evaluate } from 'mathjs/number';
import { describe, expect, it } from 'vitest';
import { parse, readFormula } from '.';
import { runs } from '$core/testing/runs';

const value = (text: string, values: Record<string, number> = {}) => {
	const read = readFormula(text, Object.keys(values));
	return read.ok ? read.formula.valueFor(values) : read.message;
};

describe('a formula', () => {
	it.each([
		['2 + 3 * 4', {}, 14],
		['2 ^ 3 ^ 2', {}, 512],
		['-a ^ 2', { a: 3 }, -9],
		['sin(30)', {}, 0.5],
		['atan2(1, 1)', {}, 45],
		['mod(course - 30, 360)', { course: 10 }, 340],
		['round(2.345, 2)', {}, 2.35],
		['max(a, b) - min(a, b)', { a: 4.8, b: 1.6 }, 3.2],
		['6.4e3 / 2', {}, 3200],
		['hw > lw', { hw: 5, lw: 1 }, 1],
		['hw == lw', { hw: 5, lw: 1 }, 0],
		['a / b', { a: 1, b: 0 }, Infinity],
		['sqrt(a)', { a: -1 }, NaN]
	] as const)('%s', (text, values, expected) => {
		const found = value(text, values as Record<string, number>);
		if (Number.isFinite(expected)) expect(found).toBeCloseTo(expected, 9);
		else expect(found).toBe(expected);
	});

	it.each([
		['', 'no formula'],
		['a +', 'neither a parameter'],
		['(1 + 2', 'cannot be read'],
		['x = 5', 'single “=”'],
		['"text"', 'cannot stand'],
		['[1, 2]', 'cannot stand'],
		['a.constructor', 'neither'],
		['import(1)', 'neither'],
		['createUnit(1)', 'neither'],
		['evaluate(1)', 'neither'],
		['constructor', 'neither'],
		['__proto__', 'neither'],
		['f(x) = x', 'single “=”'],
		['1'.repeat(500), 'at most']
	])('%s is refused in words', (text, message) => expect(value(text)).toContain(message));

	it('names the parameters in it', () => {
		const read = readFormula('a * sin(b) + 1e3', ['a', 'b', 'c']);
		expect(read.ok && read.formula.names).toEqual(['a', 'b']);
	});
});

describe('the operations that it has', () => {
	const SIGNS = [...'0123456789 .+-*/()%^,<>=!', 'a', 'b', '<=', '>=', '==', '!=', 'max(', '<<', '>>>', '1.5'];
	const outcome = (evaluated: () => unknown) => {
		try {
			return String(evaluated());
		} catch (error) {
			return (error as Error).name;
		}
	};

	it('give what the whole of mathjs gives, its refusals as well', () => {
		const scope = () => ({ a: 3, b: 2.5, max: Math.max });
		fc.assert(
			fc.property(fc.array(fc.constantFrom(...SIGNS), { maxLength: 12 }), (signs) => {
				const text = signs.join('');
				expect(outcome(() => parse(text).evaluate(scope()))).toBe(outcome(() => evaluate(text, scope())));
			}),
			{ numRuns: runs(2_000) }
		);
	});
});
