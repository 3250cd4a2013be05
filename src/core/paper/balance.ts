import { DIFFICULTIES, type Difficulty } from './difficulty';
import { sharesOf } from './pools';
import { pointsToReach, type Paper } from './question';

/** What each candidate gets of a topic on average, in points, by how hard it is; `unknown`: its author has not said. */
export type BalanceRow = { topic: string; points: Record<Difficulty | 'unknown', number>; sum: number };

export const BALANCE_KEYS = [...DIFFICULTIES, 'unknown'] as const;

/**
 * How the points of a paper are spread over its topics, the most first. Each question counts as often as it is dealt on
 * average.
 * @param depth how many steps of the tree of topics are told apart
 */
export function balanceOf(paper: Paper, depth = 1): BalanceRow[] {
	const rows = new Map<string, BalanceRow>();
	for (const { question, share } of sharesOf(paper)) {
		const topic = question.topic.split(' / ').slice(0, depth).join(' / ') || 'No topic';
		const row = rows.get(topic) ?? { topic, points: { easy: 0, medium: 0, hard: 0, unknown: 0 }, sum: 0 };
		const points = share * pointsToReach(question);
		row.points[question.difficulty ?? 'unknown'] += points;
		row.sum += points;
		rows.set(topic, row);
	}
	return [...rows.values()].sort((a, b) => b.sum - a.sum || a.topic.localeCompare(b.topic));
}
