import type { Paper } from '$core/paper';
import { mayReview, reviewOf, type Review } from '$core/review';
import { standingAnswers } from '../answers/read';
import type { Query } from '../db';
import { formOf, type Loaded } from '../sitting';

/** What the candidate of this sitting may see now; null: nothing, or not yet. */
export async function reviewFor(db: Query, one: Loaded): Promise<Review | null> {
	const { sitting, session } = one;
	const { rules } = session;
	const at = {
		handedIn: sitting.state === 'handed_in' || sitting.state === 'time_up',
		sessionEnded: session.endedAt !== null,
		allFinished: rules.review.when === 'all_finished' && (await allFinished(db, one))
	};
	// What counts nothing has no score to be told.
	if (!mayReview(rules.review, at) || sitting.ended?.countsNothing) return null;
	const form = await formOf(db, sitting.id);
	if (!form) return null;
	const { content } = (await db('paper').where({ id: one.paperId }).first('content')) as { content: string };
	const answers = (await standingAnswers(db, [sitting.id])).get(sitting.id) ?? [];
	return reviewOf(
		JSON.parse(content) as Paper,
		form,
		new Map(answers.map((answer) => [answer.questionId, answer.value])),
		rules
	);
}

/** Nobody in the administration still has this paper before them. */
async function allFinished(db: Query, { session, paperId }: Loaded): Promise<boolean> {
	const open = await db('session')
		.where({ administration_id: session.administrationId, paper_id: paperId, ended_at: null })
		.whereNot({ kind: 'rehearsal' })
		.first('id');
	return open === undefined;
}
