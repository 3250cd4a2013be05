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
	const fraction = partsOf(FRACTION, text);
	if (fraction) return { values: readFraction(fraction.parts), unit: fraction.unit };

	const power = partsOf(POWER_OF_TEN, text);
	if (power) return { values: [signed(power.parts[1], 10 ** Number(power.parts[2]))], unit: power.unit };

	const plain = partsOf(PLAIN, text);
	if (!plain) return { values: [], unit: '' };
	const [, sign, digits, exponent] = plain.parts;
	const scale = 10 ** Number(exponent ?? 0);
	const values = readingsOf(digits.replace(/[\s'’]/g, '').replace(/[.,]$/, '')).map((value) =>
		// By its text: 6.4 × 10⁻³ in binary is not the number that 6.4e-3 is.
		signed(sign, exponent === undefined ? value : Number(`${value}e${exponent}`) || value * scale)
	);
	return { values, unit: plain.unit };
}

const signed = (sign: string, value: number) => (sign === '-' ? -value : value);

const FRACTION = /^([+-]?)\s*(?:(\d+)\s+)?(\d+)\s*\/\s*(\d+)/;
const POWER_OF_TEN = /^([+-]?)\s*10\s*\^\s*\(?([+-]?\d{1,3})\)?/;
const PLAIN = /^([+-]?)\s*(\d[\d\s.,'’]*|[.,]\d+)(?:\s*(?:e\s*|[×x·*]\s*10\s*\^?\s*\(?)([+-]?\d{1,3})\)?)?/i;

/** The power of a unit, as in `m/s^2`, `kg·m^(-3)` and `m2`: right behind a letter. */
const POWER_OF_UNIT = /(?<=[\p{L}\p{M}])\^?\(?-?\d{1,2}\)?(?!\d)/gu;

/**
 * A number of this notation and what stands after it; null: it is none. Anything may stand there but further digits,
 * unless they are powers of a unit.
 */
function partsOf(notation: RegExp, text: string): { parts: RegExpExecArray; unit: string } | null {
	const parts = notation.exec(text);
	if (!parts) return null;
	const after = text.slice(parts[0].length);
	return /\d/.test(after.replace(POWER_OF_UNIT, '')) ? null : { parts, unit: after.trim() };
}

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
	const within = /^\(([^()]*)\)$/.exec(plain);
	return within ? within[1].trim() : plain;
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
	const fraction = partsOf(FRACTION, asTyped(typed));
	if (!fraction) return true;
	const [, , whole, ...rest] = fraction.parts;
	const [top, bottom] = rest.map(Number);
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

/**
 * A number as it is typed into a field: `2.5`, `2,5`, `−3`, `½`. A point is the decimal point; what can
 * be read in two ways, as `1,234`, is asked about.
 * null: nothing is typed. undefined: it can't be read, and is never saved as if it were nothing.
 */
export function readDecimal(typed: string): number | null | undefined {
	if (typed.trim() === '') return null;
	if (/^\s*-?\d*\.\d+\s*$/.test(typed)) return Number(typed);
	const { values, unit } = readQuantity(typed);
	return unit === '' && values.length === 1 ? values[0] : undefined;
}

/** Below and above these a number is told with a power of ten. */
const [SMALL, LARGE] = [1e-4, 1e9];

/**
 * How a typed number is read, for whoever typed it: `9.81 m/s²`, `1.6 × 10⁻¹⁹`. Two readings, as of `1,234`, are both
 * told, as either counts. None: it can't be read.
 */
export function readAs(typed: string): string[] {
	const { values, unit } = readQuantity(typed);
	const after = unit === '' ? '' : ` ${unit.replace(POWER_OF_UNIT, (power) => raised(power.replace(/[^\d-]/g, '')))}`;
	return values.map((value) => `${figures(value)}${after}`);
}

function figures(value: number): string {
	const size = Math.abs(value);
	if (size === 0 || (size >= SMALL && size < LARGE)) return String(Number(value.toPrecision(12))).replace('-', '−');
	const [digits, exponent] = Number(value.toPrecision(12)).toExponential().split('e');
	return `${digits.replace('-', '−')} × 10${raised(exponent.replace('+', ''))}`;
}

const raised = (digits: string) =>
	[...digits].map((sign) => (sign === '-' ? '⁻' : SUPERSCRIPTS[Number(sign)])).join('');
