import { insertMany, type Query } from '../db';
import type { House } from '../house';
import { figures } from '../marking';

type Needs = Pick<House, 'db' | 'now' | 'threads' | 'dataDir'>;

/** How each question did, as rows. */
export async function figuresToKeep(otium: Needs, administrationId: string, at: number) {
	const rows: object[] = [];
	for (const paperId of await papersOf(otium.db, administrationId)) {
		const { questions } = await figures(otium, administrationId, paperId);
		rows.push(
			...questions.map((one) => ({
				question_id: one.questionId,
				paper_id: paperId,
				administration_id: administrationId,
				seen: one.seen,
				facility: one.facility,
				discrimination: one.discrimination,
				median_ms: one.medianMs === null ? null : Math.round(one.medianMs),
				at
			}))
		);
	}
	return rows;
}

/** Keeps them, so that the bank can tell how a question did wherever it is used next. */
export async function keepFigures(trx: Query, rows: object[]): Promise<void> {
	const key = ['question_id', 'paper_id', 'administration_id'];
	await insertMany(trx, 'question_figure', rows, (insert) => insert.onConflict(key).merge());
}

async function papersOf(db: Query, administrationId: string): Promise<string[]> {
	return db('sitting')
		.where({ administration_id: administrationId, counts: 1 })
		.whereIn('state', ['handed_in', 'time_up'])
		.distinct('paper_id')
		.pluck('paper_id');
}
