import { treatmentsOf, type Correction, type Treatment } from '$core/marking';
import type { Query } from '../db';

type Row = { question_id: string; body: string };

/** By question: how a paper is marked in an administration, by what was corrected and confirmed. */
export async function treatmentsFor(
	db: Query,
	administrationId: string,
	paperId: string
): Promise<Map<string, Treatment>> {
	const rows: Row[] = await db('correction')
		.where({ administration_id: administrationId, paper_id: paperId })
		.whereNotNull('place')
		.orderBy('place')
		.select('question_id', 'body');
	return treatmentsOf(
		rows.map(({ question_id, body }) => ({ questionId: question_id, correction: JSON.parse(body) as Correction }))
	);
}
