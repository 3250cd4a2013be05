/** The words of a text without case, accents and signs, in their order. */
export function wordsOf(text: string): string[] {
	return text
		.normalize('NFKD')
		.replace(/\p{M}/gu, '')
		.toLowerCase()
		.split(/[^\p{L}\p{N}.]+/u)
		.map((word) => word.replace(/^\.+|\.+$/g, ''))
		.filter(Boolean);
}

/** Two stems that share so much are nearly the same question: one word in ten another, as found by trying. */
export const NEARLY_THE_SAME = 0.7;

/**
 * How alike two stems are, from 0 to 1: the Jaccard index of their words and pairs of neighbouring words
 * (Broder, On the resemblance and containment of documents, 1997). Pairs keep "red over white" from "white over red".
 */
export function likeness(a: string, b: string): number {
	const [first, second] = [shingles(a), shingles(b)];
	if (first.size === 0 || second.size === 0) return 0;
	let shared = 0;
	for (const shingle of first) if (second.has(shingle)) shared++;
	return shared / (first.size + second.size - shared);
}

function shingles(text: string): Set<string> {
	const words = wordsOf(text);
	return new Set([...words, ...words.slice(1).map((word, i) => `${words[i]} ${word}`)]);
}
