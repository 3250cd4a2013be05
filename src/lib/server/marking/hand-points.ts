import { handStanding, NO_PLAN, type HandMark, type HandPlan } from '$core/by-hand';
import { groupBy } from '$core/group-by';
import type { Query } from '../db';

/** By question: how a paper's answers are marked by people in an administration. */
export async function handPlans(db: Query, administrationId: string, paperId: string): Promise<Map<string, HandPlan>> {
	const rows: { question_id: string; body: string }[] = await db('hand_plan')
		.where({ administration_id: administrationId, paper_id: paperId })
		.select('question_id', 'body');
	return new Map(rows.map((row) => [row.question_id, { ...NO_PLAN, ...JSON.parse(row.body) }]));
}

export type GivenMark = HandMark & { id: string; sittingId: string; questionId: string; at: number; tookMs: number };

/** The marks that stand, by sitting and question in one key (`markKey`), in the order in which they were given. */
export async function marksGiven(db: Query, sittingIds: string[]): Promise<Map<string, GivenMark[]>> {
	const rows: (Omit<GivenMark, 'sittingId' | 'questionId' | 'tookMs'> & {
		sitting_id: string;
		question_id: string;
		took_ms: number;
	})[] = await db('hand_mark')
		.whereIn('sitting_id', sittingIds)
		.whereNull('taken_back_at')
		.orderBy(['at', 'id'])
		.select('id', 'sitting_id', 'question_id', 'marker', 'points', 'at', 'took_ms');
	const marks = rows.map(({ sitting_id, question_id, took_ms, ...row }) => ({
		...row,
		sittingId: sitting_id,
		questionId: question_id,
		tookMs: took_ms
	}));
	return groupBy(marks, ({ sittingId, questionId }) => markKey(sittingId, questionId));
}

export const markKey = (sittingId: string, questionId: string) => `${sittingId} ${questionId}`;

/** By sitting and question: the points that people gave, where they are settled. */
export async function handPoints(
	db: Query,
	administrationId: string,
	paperId: string,
	sittingIds: string[]
): Promise<Map<string, Map<string, number>>> {
	const bySitting = new Map<string, Map<string, number>>();
	const given = await marksGiven(db, sittingIds);
	if (given.size === 0) return bySitting;
	const plans = await handPlans(db, administrationId, paperId);
	for (const marks of given.values()) {
		const { sittingId, questionId } = marks[0];
		const { points } = handStanding(plans.get(questionId) ?? NO_PLAN, questionId, sittingId, marks);
		if (points === null) continue;
		const own = bySitting.get(sittingId) ?? new Map<string, number>();
		bySitting.set(sittingId, own.set(questionId, points));
	}
	return bySitting;
}
