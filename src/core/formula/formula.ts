import { parse } from './parse';

/** What a formula may call. Angles are in degrees, as on a chart. */
const DEGREE = Math.PI / 180;
const FUNCTIONS: Record<string, (...values: number[]) => number> = {
	sin: (x) => Math.sin(x * DEGREE),
	cos: (x) => Math.cos(x * DEGREE),
	tan: (x) => Math.tan(x * DEGREE),
	asin: (x) => Math.asin(x) / DEGREE,
	acos: (x) => Math.acos(x) / DEGREE,
	atan: (x) => Math.atan(x) / DEGREE,
	atan2: (y, x) => Math.atan2(y, x) / DEGREE,
	sqrt: Math.sqrt,
	ln: Math.log,
	log: Math.log10,
	exp: Math.exp,
	abs: Math.abs,
	min: Math.min,
	max: Math.max,
	floor: Math.floor,
	ceil: Math.ceil,
	round: (x, places = 0) => Number(`${Math.round(Number(`${x}e${places}`))}e-${places}`),
	// Never negative: a course of -30 is one of 330.
	mod: (x, by) => ((x % by) + by) % by
};
export const FORMULA_FUNCTIONS = Object.keys(FUNCTIONS);
const CONSTANTS = { pi: Math.PI };

const LONGEST = 400;
/** Numbers, names, operations and comparisons. No text, no lists, no assignments: what reads formulas could do more. */
const SIGNS = /^[\d\s.+\-*/()%^A-Za-z_,<>=!]*$/;

export type Formula = {
	/** Its value for these numbers; NaN: it has none. A comparison is 1 or 0. */
	valueFor: (values: Record<string, number>) => number;
	/** The parameters that it names. */
	names: string[];
};
export type ReadFormula = { ok: true; formula: Formula } | { ok: false; message: string };

/**
 * Reads a formula over named numbers: `range * sin(30) / 2`, `height > draught`. Read by mathjs, which parses and never
 * evaluates as a program; only the functions above are known to it.
 * @param parameters the names that may stand in it
 */
export function readFormula(text: string, parameters: string[]): ReadFormula {
	if (text.trim() === '') return { ok: false, message: 'There is no formula yet.' };
	if (text.length > LONGEST) return { ok: false, message: `A formula of at most ${LONGEST} letters.` };
	if (!SIGNS.test(text)) {
		const sign = [...text].find((one) => !SIGNS.test(one));
		return { ok: false, message: `“${sign}” cannot stand in a formula.` };
	}
	if (/(?<![<>=!])=(?!=)/.test(text))
		return { ok: false, message: 'A single “=” cannot stand in a formula; compare with “==”.' };
	// An exponent like 6.4e3 belongs to its number.
	const words = text.replace(/(\d\.?)[eE]([+-]?\d)/g, '$1$2').match(/[A-Za-z_][A-Za-z0-9_]*/g) ?? [];
	const known = new Set([...parameters, ...FORMULA_FUNCTIONS, ...Object.keys(CONSTANTS)]);
	const stranger = words.find((word) => !known.has(word));
	if (stranger) return { ok: false, message: `“${stranger}” is neither a parameter nor a function.` };
	try {
		const compiled = parse(text).compile();
		// One object for all evaluations: copying the functions each time takes longer than reckoning.
		const scope: Record<string, unknown> = { ...FUNCTIONS, ...CONSTANTS };
		const names = [...new Set(words)].filter((word) => parameters.includes(word));
		return {
			ok: true,
			formula: {
				names,
				valueFor(values) {
					if (names.some((name) => !Object.hasOwn(values, name))) return NaN;
					try {
						const value: unknown = compiled.evaluate(Object.assign(scope, values));
						return typeof value === 'boolean' ? Number(value) : typeof value === 'number' ? value : NaN;
					} catch {
						return NaN;
					}
				}
			}
		};
	} catch {
		return { ok: false, message: 'It cannot be read; perhaps a bracket is missing.' };
	}
}
