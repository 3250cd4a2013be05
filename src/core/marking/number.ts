/**
 * Every reading that a typed number allows, in the usual notations: decimal point or comma, thousands grouped by
 * spaces, commas, points or apostrophes, `3/4`, `1 3/4`, `6.4e3`, a real minus sign, a unit after it.
 * `1,234` can be read in two ways and gives both; an answer is right when one of its readings is.
 * Nothing readable gives an empty list.
 */
export function readNumber(typed: string): number[] {
	const text = typed.normalize('NFKC').replace(/[−–]/g, '-').replace(/⁄/g, '/').trim();
	const fraction = /^([+-]?)(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)(?=\D*$)/.exec(text);
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
