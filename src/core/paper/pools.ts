import { DIFFICULTIES, type Difficulty } from './difficulty';
import type { Part, Question } from './question';

/** Questions of which each candidate is dealt so many; of a part that everybody gets whole, all of them. */
export type Pool = { name: string; draw: number; questions: Question[] };

/**
 * What a part is dealt from: all of it at once, or one pool for each difficulty of which some are wanted. Questions of no
 * such difficulty are in none.
 */
export function poolsOf({ title, draw, strata, questions }: Part): Pool[] {
	if (draw === null) return [{ name: title, draw: questions.length, questions }];
	if (!strata) return [{ name: title, draw, questions }];
	return DIFFICULTIES.flatMap((difficulty) => {
		const wanted = strata[difficulty];
		if (wanted === undefined) return [];
		const name = title === '' ? difficulty : `${title}, ${difficulty}`;
		return { name, draw: wanted, questions: questions.filter((one) => one.difficulty === difficulty) };
	});
}

/** How often a question of a pool is dealt on average, from 0 to 1. */
export function shareOf({ draw, questions }: Pool): number {
	return questions.length === 0 ? 0 : Math.min(1, draw / questions.length);
}

/** How many are dealt of so many of each difficulty. */
export function sumOfStrata(strata: Partial<Record<Difficulty, number>>): number {
	return DIFFICULTIES.reduce((sum, difficulty) => sum + (strata[difficulty] ?? 0), 0);
}
