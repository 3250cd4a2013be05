import { foldName } from '../access';
import type { Tolerated } from './tolerance';

/**
 * How typed numbers were read until 0.23, for what was closed then. Every reading that a typed number allows, in the usual notations: decimal point or comma, thousands grouped by
 * spaces, commas, points or apostrophes, `3/4`, `1 3/4`, `6.4e3`, a real minus sign, a unit after it.
 * `1,234` can be read in two ways and gives both; an answer is right when one of its readings is.
 * Nothing readable gives an empty list.
 */
export function readNumberBefore(typed: string): number[] {
	const text = asTyped(typed);
	const fraction = FRACTION.exec(text);
	if (fraction) return readFraction(fraction);

	const plain = /^([+-]?)\s*(\d[\d\s.,'’]*|[.,]\d+)(?:\s*[e×x]\s*(?:10\^?)?([+-]?\d+))?(?=\D*$)/i.exec(text);
	if (!plain) return [];
	const [, sign, digits, exponent] = plain;
	const scale = (sign === '-' ? -1 : 1) * 10 ** Number(exponent ?? 0);
	return readingsOf(digits.replace(/[\s'’]/g, '').replace(/[.,]$/, '')).map((value) => value * scale);
}

function readFraction([, sign, whole, top, bottom]: RegExpExecArray): number[] {
	if (Number(bottom) === 0) return [];
	const value = Number(whole ?? 0) + Number(top) / Number(bottom);
	return [sign === '-' ? -value : value];
}

function readingsOf(digits: string): number[] {
	const marks = digits.replace(/\d/g, '');
	if (marks === '') return [Number(digits)];
	const last = marks[marks.length - 1];
	const asDecimal = Number(digits.replaceAll(last === '.' ? ',' : '.', '').replace(last, '.'));
	const grouped = /^\d{1,3}(?:([.,])\d{3})(?:\1\d{3})*$/.test(digits);
	if (marks.length > 1 && new Set(marks).size === 1) return grouped ? [Number(digits.replaceAll(last, ''))] : [];
	return grouped ? [asDecimal, Number(digits.replace(last, ''))] : [asDecimal];
}

const asTyped = (typed: string) => typed.normalize('NFKC').replace(/[−–]/g, '-').replace(/⁄/g, '/').trim();
const FRACTION = /^([+-]?)(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)(?=\D*$)/;

/** Case, accents and every sign that is no letter or digit did not matter. */
export function isAcceptedBefore(accepted: string[], typed: string): boolean {
	const folded = foldName(typed);
	return folded !== '' && accepted.some((text) => foldName(text) === folded);
}

export function isWithinBefore(read: number, { answer, tolerance: { kind, amount } }: Tolerated): boolean {
	const allowed = kind === 'absolute' ? amount : Math.abs(answer) * amount;
	return Math.abs(read - answer) <= allowed + 1e-9 * Math.max(1, Math.abs(answer));
}
