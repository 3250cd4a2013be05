/**
 * Every reading that a typed number allows, in the usual notations: decimal point or comma, thousands grouped by
 * spaces, commas, points or apostrophes (also by twos, as in India), `3/4`, `1 3/4`, `3½`, `6.4e3`, `6.4·10^3`, `10³`, a real
 * minus sign, digits of any script, a currency before it, a unit with powers after it (`9.81 m/s²`), in parentheses.
 * `1,234` can be read in two ways and gives both; an answer is right when one of its readings is.
 * Nothing readable gives an empty list.
 */
export function readNumber(typed: string): number[] {
	return readQuantity(typed).values;
}

/** A number and what stands after it: `9.81 m/s^2` is 9.81 and `m/s^2`. No values: it can't be read. */
export type Quantity = { values: number[]; unit: string };

/** The same with its unit. */
export function readQuantity(typed: string): Quantity {
	const text = asTyped(typed);
	const fraction = FRACTION.exec(text);
	if (fraction) return { values: readFraction(fraction), unit: fraction[5].trim() };

	const power = POWER_OF_TEN.exec(text);
	if (power) return { values: [signed(power[1], 10 ** Number(power[2]))], unit: power[3].trim() };

	const plain = PLAIN.exec(text);
	if (!plain) return { values: [], unit: '' };
	const [, sign, digits, exponent, unit] = plain;
	const scale = 10 ** Number(exponent ?? 0);
	const values = readingsOf(digits.replace(/[\s'’]/g, '').replace(/[.,]$/, '')).map((value) =>
		// By its text: 6.4 × 10⁻³ in binary is not the number that 6.4e-3 is.
		signed(sign, exponent === undefined ? value : Number(`${value}e${exponent}`) || value * scale)
	);
	return { values, unit: unit.trim() };
}

const signed = (sign: string, value: number) => (sign === '-' ? -value : value);

/** What may stand after a number: words and signs of units, each with a power, `m/s^2`, `kg·m⁻³`, `%`, `°C`. */
const UNIT = String.raw`(?:\s*(?:[\p{L}\p{M}%‰°µΩ"'′″]+(?:\^?\(?-?\d{1,2}\)?)?)(?:\s*[·*/.]\s*|\s+|$|(?=[\p{L}%°(])))*\.?\s*$`;
const FRACTION = new RegExp(String.raw`^([+-]?)\s*(?:(\d+)\s+)?(\d+)\s*/\s*(\d+)(${UNIT})`, 'u');
const POWER_OF_TEN = new RegExp(String.raw`^([+-]?)\s*10\s*\^\s*\(?([+-]?\d{1,3})\)?(${UNIT})`, 'u');
const PLAIN = new RegExp(
	String.raw`^([+-]?)\s*(\d[\d\s.,'’]*|[.,]\d+)(?:\s*(?:e\s*|[×x·*]\s*10\s*\^?\s*\(?)([+-]?\d{1,3})\)?)?(${UNIT})`,
	'iu'
);

function readFraction([, sign, whole, top, bottom]: RegExpExecArray): number[] {
	if (Number(bottom) === 0) return [];
	return [signed(sign, Number(whole ?? 0) + Number(top) / Number(bottom))];
}

function readingsOf(digits: string): number[] {
	const marks = digits.replace(/\d/g, '');
	if (marks === '') return [Number(digits)];
	const last = marks[marks.length - 1];
	const asDecimal = Number(digits.replaceAll(last === '.' ? ',' : '.', '').replace(last, '.'));
	const grouped = GROUPED.test(digits);
	if (marks.length > 1 && new Set(marks).size === 1) return grouped ? [Number(digits.replaceAll(last, ''))] : [];
	return grouped ? [asDecimal, Number(digits.replace(last, ''))] : [asDecimal];
}
/** By threes, or by twos before the last three. */
const GROUPED = /^\d{1,3}([.,])\d{3}(?:\1\d{3})*$|^\d{1,2}(?:,\d{2})+,\d{3}$/;

const SUPERSCRIPTS = '⁰¹²³⁴⁵⁶⁷⁸⁹';

/** In plain digits and signs, before anything is folded: of `3½` and `10³` folding would make 31/2 and 103. */
function asTyped(typed: string): string {
	const plain = typed
		.replace(/(\d)\s*(?=[¼-¾⅐-⅞])/g, '$1 ')
		.replace(/[⁻⁺]?[⁰¹²³⁴-⁹]+/g, (power) => {
			const digits = [...power].map((sign) => (sign === '⁻' ? '-' : sign === '⁺' ? '' : SUPERSCRIPTS.indexOf(sign)));
			return `^${digits.join('')}`;
		})
		.normalize('NFKC')
		.replace(/\p{Nd}/gu, asciiDigit)
		.replace(/٫/g, '.')
		.replace(/٬/g, ',')
		.replace(/[−–]/g, '-')
		.replace(/⁄/g, '/')
		.replace(/\p{Sc}/gu, '')
		.trim()
		.replace(/^=\s*/, '');
	return plain.replace(/^\(\s*([^()]*?)\s*\)$/, '$1');
}

/** Digits of a script stand in a row of ten, each row at a tenth of what Unicode numbers. */
function asciiDigit(digit: string): string {
	let zero = digit.codePointAt(0)!;
	while (/\p{Nd}/u.test(String.fromCodePoint(zero - 1)) && digit.codePointAt(0)! - zero < 9) zero--;
	return String(digit.codePointAt(0)! - zero);
}

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

/**
 * A whole number as it is typed into a field, from `least` to `most`. null: nothing is typed. undefined: it can't be read,
 * which is not nothing, and is never saved as if it were.
 */
export function readWhole(typed: string, least: number, most: number): number | null | undefined {
	if (typed.trim() === '') return null;
	const { values, unit } = readQuantity(typed);
	const whole = unit === '' ? values.filter(Number.isInteger) : [];
	const value = whole[whole.length - 1];
	return value !== undefined && value >= least && value <= most ? value : undefined;
}
