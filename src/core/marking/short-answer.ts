import { plainLetters } from '../names';

/**
 * Whether a short answer is one of those that count. What is forgiven: case, accents on Latin and Greek letters, full-width
 * forms, spaces at either end and how many stand between words, spaces, hyphens and apostrophes within words (`well-known`,
 * `well known`, `o’clock`), and a full stop at the end. Every other sign counts: `x-1` is not `x+1`, `C++` not `C`, `12:30`
 * not `1230`, `-5` not `5`; and so do marks that make another letter, as in が and か.
 */
export function isAccepted(accepted: string[], typed: string): boolean {
	const read = foldAnswer(typed);
	return read !== '' && accepted.some((text) => foldAnswer(text) === read);
}

/** An answer reduced to what two spellings of it share; empty: there is nothing in it that could count. */
export function foldAnswer(text: string): string {
	return (
		text
			.normalize('NFKC')
			.replace(/[‐‑‒–—−]/g, '-')
			.replace(/[‘’ʼ`´]/g, "'")
			.replace(/[\p{Script=Latin}\p{Script=Greek}]\p{M}*/gu, plainLetters)
			.toLowerCase()
			.trim()
			.replace(/(?<=\p{L})\.$/u, '')
			.replace(/\s+/g, ' ')
			// Between letters alone: beside a digit it is a sign or a space that counts.
			.replace(/(?<=[\p{L}\p{M}])(?: ?[-'] ?| )(?=\p{L})/gu, '')
	);
}
