import { foldName } from './identity';

/** NIST SP 800-63B, 5.1.1: length is what counts; nothing is prescribed of what a password is made of. */
export const LEAST_PASSWORD = 12;
export const MOST_PASSWORD = 200;

/**
 * Why a password is not taken, in a sentence; null: it is.
 * @param about what somebody would guess first: the names of whoever it is for
 * @param isCommon whether a word, in small letters, is among those that are tried first
 */
export function passwordFault(password: string, about: string[], isCommon: (word: string) => boolean): string | null {
	if ([...password].length < LEAST_PASSWORD) return `A password of at least ${LEAST_PASSWORD} letters.`;
	if (password.length > MOST_PASSWORD) return `A password of at most ${MOST_PASSWORD} letters.`;
	const small = password.toLowerCase();
	// Digits and signs around a word, or the word twice, are what is tried next.
	const core = small.replace(/^[^\p{L}]+|[^\p{L}]+$/gu, '');
	const half = core.slice(0, core.length / 2);
	const words = [small, core, ...(half + half === core ? [half] : [])];
	if (new Set(small).size < 5 || words.some((word) => word === '' || isCommon(word)))
		return 'This password is one that others try first. Choose a few words that have nothing to do with each other.';
	const folded = foldName(password);
	const named = about.flatMap((text) => text.split(/[\s@.]+/)).map(foldName);
	if (named.some((word) => word.length >= 4 && folded.includes(word) && folded.length - word.length < 8))
		return 'This password is little more than your name. Choose a few words that have nothing to do with you.';
	return null;
}
