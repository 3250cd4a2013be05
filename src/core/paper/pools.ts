import { DIFFICULTIES, type Difficulty } from './difficulty';
import { formsOf } from './paper-forms';
import type { Paper, Part, Question } from './question';
import { unitsOf } from './units';

/** Units of questions of which each candidate is dealt so many; of a part that everybody gets whole, all of them. */
export type Pool = { name: string; draw: number; units: Question[][] };

/**
 * What a part is dealt from: all of it at once, or one pool for each difficulty of which some are wanted. Questions of no
 * such difficulty are in none; of a unit its first question's counts.
 */
export function poolsOf({ title, draw, strata, questions }: Part): Pool[] {
	const units = unitsOf(questions);
	if (draw === null) return [{ name: title, draw: units.length, units }];
	if (!strata) return [{ name: title, draw, units }];
	return DIFFICULTIES.flatMap((difficulty) => {
		const wanted = strata[difficulty];
		if (wanted === undefined) return [];
		const name = title === '' ? difficulty : `${title}, ${difficulty}`;
		return { name, draw: wanted, units: units.filter(([first]) => first.difficulty === difficulty) };
	});
}

/** How often a unit of a pool is dealt on average, from 0 to 1. */
function shareOf({ draw, units }: Pool): number {
	return units.length === 0 ? 0 : Math.min(1, draw / units.length);
}

/**
 * Each question of a paper that can be dealt with how often it is on average, from 0 to 1: by its pool, or among the
 * paper's forms by chance.
 */
export function sharesOf(paper: Paper): { question: Question; share: number }[] {
	const forms = formsOf(paper);
	if (forms.length === 0)
		return paper.parts
			.flatMap(poolsOf)
			.flatMap((pool) => pool.units.flat().map((question) => ({ question, share: shareOf(pool) })));
	const shares = new Map<Question, number>();
	for (const { questions } of forms)
		for (const question of questions) shares.set(question, (shares.get(question) ?? 0) + 1 / forms.length);
	return [...shares].map(([question, share]) => ({ question, share }));
}

/** How many are dealt of so many of each difficulty. */
export function sumOfStrata(strata: Partial<Record<Difficulty, number>>): number {
	return DIFFICULTIES.reduce((sum, difficulty) => sum + (strata[difficulty] ?? 0), 0);
}
