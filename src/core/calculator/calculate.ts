import { parse } from '$core/formula';

/** What a calculator offers: the four operations, or functions besides. */
export type CalculatorKind = 'basic' | 'scientific';
export type Angle = 'degrees' | 'radians';

export type Calculated = { ok: true; value: number } | { ok: false; message: string };

/** Functions by the name that is typed. Angles go in and come out as the angle says. */
function functionsFor(angle: Angle): Record<string, unknown> {
	const toRadians = angle === 'degrees' ? Math.PI / 180 : 1;
	return {
		sin: (x: number) => Math.sin(x * toRadians),
		cos: (x: number) => Math.cos(x * toRadians),
		tan: (x: number) => Math.tan(x * toRadians),
		asin: (x: number) => Math.asin(x) / toRadians,
		acos: (x: number) => Math.acos(x) / toRadians,
		atan: (x: number) => Math.atan(x) / toRadians,
		sqrt: Math.sqrt,
		ln: Math.log,
		log: Math.log10,
		exp: Math.exp,
		abs: Math.abs,
		pi: Math.PI,
		e: Math.E
	};
}

const LONGEST = 200;
const SIGNS = /^[\d\s.+\-*/()%^a-z]*$/;
const BASIC_SIGNS = /^[\d\s.+\-*/()%]*$/;

/**
 * Works out what was typed: `2 × (3,5 + 1)`, `sin(30)`, `√2`, `2^10`, `5%`.
 * Only numbers, operations and the functions above are read; the library behind it can do more than a candidate may.
 */
export function calculate(typed: string, kind: CalculatorKind, angle: Angle = 'degrees'): Calculated {
	const text = typed
		.normalize('NFKC')
		.toLowerCase()
		.replace(/×|·/g, '*')
		.replace(/÷|∕|:/g, '/')
		.replace(/[−–]/g, '-')
		.replace(/,/g, '.')
		.replace(/π/g, 'pi')
		.replace(/√\s*(\d+(?:\.\d+)?)/g, 'sqrt($1)')
		.replace(/√/g, 'sqrt')
		.trim();
	if (text === '') return { ok: false, message: 'Nothing to work out yet.' };
	if (text.length > LONGEST) return { ok: false, message: 'Too long: work it out in two steps.' };
	const functions = functionsFor(angle);
	// An exponent like 6.4e3 belongs to its number; every other word must be one of ours.
	const words = text.replace(/(\d\.?)e([+-]?\d)/g, '$1$2').match(/[a-z][a-z0-9]*/g) ?? [];
	const stranger = words.find((word) => kind === 'basic' || !Object.hasOwn(functions, word));
	if (stranger) return { ok: false, message: `“${stranger}” is not known here.` };
	if (!(kind === 'basic' ? BASIC_SIGNS : SIGNS).test(text))
		return { ok: false, message: 'Only numbers and the signs on the keys can be read.' };
	try {
		const value: unknown = parse(text).evaluate(functions);
		if (typeof value !== 'number') return { ok: false, message: 'Something is missing.' };
		if (!Number.isFinite(value)) return { ok: false, message: 'That has no value.' };
		return { ok: true, value };
	} catch {
		return { ok: false, message: 'Something is missing, perhaps a bracket.' };
	}
}

/** A value as it is shown: twelve digits, so that 0.1 + 0.2 is 0.3. */
export function showValue(value: number): string {
	const rounded = Number(value.toPrecision(12));
	return String(Object.is(rounded, -0) ? 0 : rounded);
}
