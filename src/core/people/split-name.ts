/** How whole names in one column are written: `Family, Given`, `Given Family`, or `Family Given`. */
export type NameOrder = 'comma' | 'given_first' | 'family_first';
export type SplitName = { given: string; family: string };

/** Words that belong to the family name behind them; by common practice in English, Dutch, German and Romance names. */
const PARTICLES = new Set(
	'af al bin bint da de del della den der des di do dos du el ibn la le san st ter van von y zu'.split(' ')
);

/** The order in which a column's names seem to be written: with commas when most have one. */
export function guessNameOrder(names: string[]): NameOrder {
	const written = names.filter((name) => name.trim() !== '');
	const withComma = written.filter((name) => name.includes(',')).length;
	return withComma * 2 > written.length ? 'comma' : 'given_first';
}

/** A whole name in its two parts. A single word is a family name. One with a comma is read by its comma in any order. */
export function splitName(name: string, order: NameOrder): SplitName {
	const text = name.trim().replace(/\s+/g, ' ');
	const comma = text.indexOf(',');
	if (comma >= 0) return { family: text.slice(0, comma).trim(), given: text.slice(comma + 1).trim() };
	const words = text.split(' ');
	if (words.length === 1) return { given: '', family: text };
	const isParticle = (word: string | undefined) => word !== undefined && PARTICLES.has(word.toLowerCase());
	if (order === 'family_first') {
		let last = 0;
		while (last < words.length - 2 && isParticle(words[last])) last++;
		return { family: words.slice(0, last + 1).join(' '), given: words.slice(last + 1).join(' ') };
	}
	let first = words.length - 1;
	while (first > 1 && isParticle(words[first - 1])) first--;
	return { given: words.slice(0, first).join(' '), family: words.slice(first).join(' ') };
}
