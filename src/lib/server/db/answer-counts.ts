import type { Query } from './open';

/** How many different answers each question of these sittings has had; marking and striking out count as none. */
export async function answerRevisions(
	db: Query,
	sittingIds: string[]
): Promise<{ sitting_id: string; question_id: string; times: number }[]> {
	return db('answer')
		.whereIn('sitting_id', sittingIds)
		.whereNull('kept_because')
		.groupBy('sitting_id', 'question_id')
		.select('sitting_id', 'question_id', db.raw('count(DISTINCT json_extract(value, ?)) as times', ['$.value']));
}

/** How many answers these sittings had, by the minute, as the minute's number since the epoch. */
export async function answersByMinute(db: Query, sittingIds: string[]): Promise<Map<number, number>> {
	const minute = db.raw('received_at / 60000');
	const rows: { minute: number; count: number }[] = await db('answer')
		.whereIn('sitting_id', sittingIds)
		.groupBy(minute)
		.select(db.raw('received_at / 60000 as minute'), db.raw('count(*) as count'));
	return new Map(rows.map((row) => [Math.floor(row.minute), row.count]));
}
