import { plainLetters } from '../names';

/** A name reduced to what two spellings of it share: case, accents, spaces, hyphens and apostrophes are gone. */
export function foldName(name: string): string {
	return plainLetters(name).replace(/[^\p{L}\p{N}]/gu, '');
}

/** Whether two given names are the same, however they were typed; somebody may have none. */
export function sameGiven(a: string, b: string): boolean {
	return foldName(a) === foldName(b);
}

/** Whether two names are the same person's, however they were typed. */
export function sameName(a: string, b: string): boolean {
	const folded = foldName(a);
	return folded !== '' && folded === foldName(b);
}

/** A candidate number as it is compared: `do 1043`, `DO1043` and `DO-1043` are one. */
export function foldNumber(number: string): string {
	return foldName(number);
}
