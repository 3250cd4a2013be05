import { mayReview, reviewOf, type Review } from '$core/review';
import { hasEnded, IN_THE_ROOM } from '$core/sitting';
import { standingAnswers } from '../answers';
import type { Query } from '../db';
import { handPoints, treatmentsFor, wasClosedBefore } from '../marking';
import { paperVersion } from '../paper';
import { answersGone } from '../records';
import { owingOf } from '../session';
import { formOf, OwnIds, type Loaded } from '../sitting';

/** What the candidate of this sitting may see now; null: nothing, or not yet. */
export async function reviewFor(db: Query, one: Loaded, now: number): Promise<Review | null> {
	const { sitting, session } = one;
	const { rules } = session;
	const at = {
		handedIn: hasEnded(sitting.state),
		sessionOver: session.endedAt !== null && !(await someoneWorksOn(db, session.id)),
		// A rehearsal's paper is for practice: nobody owes it.
		nobodyOwes: session.kind === 'rehearsal' || (await owingOf(db, session.administrationId, one.paperId, now)) === 0
	};
	// What counts nothing has no score to be told.
	if (!mayReview(rules.review, at) || sitting.ended?.countsNothing) return null;
	if ((await answersGone(db, session.administrationId)) !== null) return null;
	const form = await formOf(db, sitting.id);
	if (!form) return null;
	const { content } = await paperVersion(db, one.paperId);
	const answers = (await standingAnswers(db, [sitting.id])).get(sitting.id) ?? [];
	const values = new Map(answers.map((answer) => [answer.questionId, answer.value]));
	const { administrationId } = session;
	const byHand = await handPoints(db, administrationId, one.paperId, [sitting.id]);
	const treatments = await treatmentsFor(db, administrationId, one.paperId);
	const review = reviewOf(content, form, values, rules, {
		treatments,
		byHand: byHand.get(sitting.id),
		leftMs: sitting.ended?.leftMs ?? null,
		asBefore: await wasClosedBefore(db, administrationId)
	});
	const ids = new OwnIds(db, sitting.id, form.questions);
	return { ...review, questions: review.questions && review.questions.map((one) => ids.reviewed(one)) };
}

/** Somebody is at work in a window of their own, or will be, though the session has ended. */
async function someoneWorksOn(db: Query, sessionId: string): Promise<boolean> {
	const row = await db('sitting')
		.where({ session_id: sessionId })
		.whereIn('state', ['expected', ...IN_THE_ROOM])
		.first('id');
	return row !== undefined;
}
