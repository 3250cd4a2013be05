/**
 * Every reading that a typed number allows, in the usual notations: decimal point or comma, thousands grouped by
 * spaces, commas, points or apostrophes, `3/4`, `1 3/4`, `6.4e3`, a real minus sign, a unit after it.
 * `1,234` can be read in two ways and gives both; an answer is right when one of its readings is.
 * Nothing readable gives an empty list.
 */
export function readNumber(typed: string): number[] {
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

/**
 * Whether a typed number is as simple as it can be: `3/4` and `1 3/4` are, `6/8`, `4/1` and `1 6/4` are not. What is no
 * fraction is.
 */
export function isReduced(typed: string): boolean {
	const fraction = FRACTION.exec(asTyped(typed));
	if (!fraction) return true;
	const [whole, top, bottom] = [fraction[2], Number(fraction[3]), Number(fraction[4])];
	return commonDivisor(top, bottom) === 1 && bottom > 1 && (whole === undefined || top < bottom);
}

/** Euclid's algorithm. */
function commonDivisor(a: number, b: number): number {
	return b === 0 ? a : commonDivisor(b, a % b);
}
