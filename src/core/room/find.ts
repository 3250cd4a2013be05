import { foldName } from '../access';

/**
 * Those in whom every word of the text is found somewhere, whatever its case, accents and place: "gre vance" is Greta
 * Vance. Nothing typed finds nobody.
 */
export function findByWords<T>(all: readonly T[], text: string, textsOf: (one: T) => string[]): T[] {
	const words = text.split(/\s+/).map(foldName).filter(Boolean);
	if (words.length === 0) return [];
	return all.filter((one) => {
		const texts = textsOf(one).map(foldName);
		return words.every((word) => texts.some((found) => found.includes(word)));
	});
}
