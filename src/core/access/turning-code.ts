import { Secret, TOTP } from 'otpauth';

/** Eight digits, so that what was photographed a period ago is worth nothing and what is guessed is one in 10⁸. */
export const TURNING_DIGITS = 8;

/**
 * The door code of the period that `now` lies in, by RFC 6238 with HMAC-SHA-1 and a period of minutes.
 * @param key the session's key, base32
 */
export function turningCode(key: string, now: number, periodMinutes: number): string {
	return totp(key, periodMinutes).generate({ timestamp: now });
}

/**
 * Whether a code is the one of this period, or of the one before: whoever copied it from the board just as it turned is
 * let in (RFC 6238, section 5.2, allows one step for transmission). A code to come is never taken.
 */
export function isTurningCode(key: string, typed: string, now: number, periodMinutes: number): boolean {
	const token = typed.replace(/\D/g, '');
	if (token.length !== TURNING_DIGITS) return false;
	const delta = totp(key, periodMinutes).validate({ token, timestamp: now, window: 1 });
	return delta === 0 || delta === -1;
}

/** When the code next turns, epoch milliseconds. */
export function turnsAt(now: number, periodMinutes: number): number {
	const period = periodMinutes * 60_000;
	return (Math.floor(now / period) + 1) * period;
}

/** A key from 20 random bytes, as RFC 4226 recommends for HMAC-SHA-1. */
export function turningKeyFrom(randomBytes: Uint8Array): string {
	return new Secret({ buffer: new Uint8Array(randomBytes).buffer }).base32;
}

/** As it stands on the board: `4821 0937`. */
export function showTurningCode(code: string): string {
	return `${code.slice(0, 4)} ${code.slice(4)}`;
}

function totp(key: string, periodMinutes: number): TOTP {
	return new TOTP({
		secret: Secret.fromBase32(key),
		algorithm: 'SHA1',
		digits: TURNING_DIGITS,
		period: periodMinutes * 60
	});
}
