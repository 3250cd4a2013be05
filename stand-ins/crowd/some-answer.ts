type Named = { id: string };
/** A question as a device has it; what only the screen needs is left out. */
export type Question = {
	id: string;
	kind: string;
	choices?: Named[];
	items?: Named[];
	matches?: Named[];
	gaps?: string[];
};

const WORDS = 'I would slow down keep a look-out sound the signal and tell the master before the fog closes in'.split(
	' '
);

/**
 * An answer of the shape that the question asks for.
 * @param words of an essay or a short answer
 * @param random between 0 and 1
 */
export function someAnswer(
	{ kind, choices, items, matches, gaps }: Question,
	words: number,
	random: () => number
): unknown {
	const anyOf = <T>(list: T[]): T => list[Math.floor(random() * list.length)];
	switch (kind) {
		case 'true_false':
			return random() < 0.6;
		case 'numeric':
			return String(Math.round(random() * 100) / 10);
		case 'single':
			return anyOf(choices!).id;
		case 'multiple':
			return choices!.filter(() => random() < 0.5).map((choice) => choice.id);
		case 'ordering':
			return choices!.map((choice) => choice.id).reverse();
		case 'matching':
			return Object.fromEntries(items!.map((item) => [item.id, anyOf(matches!).id]));
		case 'fill_in':
			return Object.fromEntries(gaps!.map((gap) => [gap, 'port']));
		default:
			return Array.from({ length: words }, () => anyOf(WORDS)).join(' ');
	}
}
