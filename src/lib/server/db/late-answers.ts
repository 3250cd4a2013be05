import type { Query } from './open';

/**
 * How many answers count that came after the time, by sitting; those without any are left out. The condition stands as a
 * literal, so that the partial index on it is used.
 */
export async function lateAnswers(db: Query, sittingIds: string[]): Promise<Map<string, number>> {
	const rows = (await db('answer_standing')
		.whereIn('sitting_id', sittingIds)
		.whereRaw('late = 1')
		.groupBy('sitting_id')
		.select('sitting_id')
		.count('* as count')) as { sitting_id: string; count: number }[];
	return new Map(rows.map(({ sitting_id, count }) => [sitting_id, count]));
}
