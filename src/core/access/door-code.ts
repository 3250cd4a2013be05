/**
 * 29 symbols in which no two look alike: of 0/O, 1/I/L, 2/Z, 5/S, 8/B and U/V only one each is used, so that whatever
 * somebody reads off a board from the back row has one meaning.
 */
export const DOOR_CODE_ALPHABET = '0123456789ACDEFGHJKMNPQRTVWXY';
export const DOOR_CODE_LENGTH = 7;

/** log2(29⁷) ≈ 34.0 bits. Enough for a code that expires at midnight behind a limit on tries; not for a password. */
export const DOOR_CODE_BITS = DOOR_CODE_LENGTH * Math.log2(DOOR_CODE_ALPHABET.length);

const READ_AS: Record<string, string> = { O: '0', I: '1', L: '1', Z: '2', S: '5', B: '8', U: 'V' };

/**
 * A door code from random bytes. Bytes that would favour some symbols are passed over, so give plenty: three for each
 * symbol never run out in practice.
 * @throws RangeError when the bytes run out
 */
export function doorCodeFrom(randomBytes: Uint8Array): string {
	return symbolsFrom(randomBytes, DOOR_CODE_LENGTH);
}

function symbolsFrom(randomBytes: Uint8Array, length: number): string {
	const size = DOOR_CODE_ALPHABET.length;
	const limit = 256 - (256 % size);
	const symbols: string[] = [];
	for (const byte of randomBytes) {
		if (byte < limit) symbols.push(DOOR_CODE_ALPHABET[byte % size]);
		if (symbols.length === length) return symbols.join('');
	}
	throw new RangeError('Not enough random bytes for a code.');
}

/** What somebody typed, as the code it means: spaces, dashes, lower case and look-alikes are forgiven. */
export function readDoorCode(typed: string): string {
	return [...typed.normalize('NFKC').toUpperCase()]
		.map((symbol) => READ_AS[symbol] ?? symbol)
		.filter((symbol) => DOOR_CODE_ALPHABET.includes(symbol))
		.join('');
}

/** As it is written on the board: `K7PX-3MQ`. */
export function showDoorCode(code: string): string {
	return `${code.slice(0, 4)}-${code.slice(4)}`;
}

/** A candidate's own slip: ten symbols, log2(29¹⁰) ≈ 48.6 bits, as it is theirs for days and not for one. */
export const SLIP_LENGTH = 10;

/**
 * A slip's code from random bytes; forty are plenty.
 * @throws RangeError when the bytes run out
 */
export function slipCodeFrom(randomBytes: Uint8Array): string {
	return symbolsFrom(randomBytes, SLIP_LENGTH);
}

/** As it is printed: `K7PX-3MQ-R4T`. */
export function showSlip(code: string): string {
	return `${code.slice(0, 4)}-${code.slice(4, 7)}-${code.slice(7)}`;
}

/** Compares two secrets in a time that depends on their length alone. */
export function sameSecret(a: string, b: string): boolean {
	let difference = a.length ^ b.length;
	for (let i = 0; i < Math.max(a.length, b.length); i++) difference |= (a.charCodeAt(i) || 0) ^ (b.charCodeAt(i) || 0);
	return difference === 0;
}
