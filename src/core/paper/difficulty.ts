/** How hard a question is, as its author expects it. */
export const DIFFICULTIES = ['easy', 'medium', 'hard'] as const;
export type Difficulty = (typeof DIFFICULTIES)[number];

/**
 * The share of the points that a candidate is expected to reach. From common practice in classroom tests (from memory):
 * items answered right by more than four in five count as easy, by fewer than half as hard.
 */
export const EXPECTED_SHARE: Record<Difficulty, number> = { easy: 0.85, medium: 0.65, hard: 0.4 };

/** How many of its points are expected; where nothing is said of a question, as of a medium one. */
export function expectedPoints(points: number, difficulty: Difficulty | undefined): number {
	return points * EXPECTED_SHARE[difficulty ?? 'medium'];
}
