import { foldName } from '../access';
import type { SittingState } from '../sitting';

/** Somebody who is expected somewhere at the site today, under the name as it is registered. */
export type FoundToday = {
	sittingId: string;
	name: string;
	number: string;
	group: string;
	state: SittingState;
	session: { id: string; name: string; room: string; opens: number };
};

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
