import { responseTimes, type ResponseTimes } from '$core/pace';
import type { House } from '../house';
import type { Session } from '../session';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'pace'>;

/** The questions of a session's paper in its own order, each with how long it took those who have answered it. */
export async function drawResponseTimes(otium: Needs, session: Session): Promise<ResponseTimes[]> {
	const answers: { questionId: string; inViewMs: number }[] = await otium
		.db('answer_standing')
		.join('roster', 'roster.sitting_id', 'answer_standing.sitting_id')
		.where({ session_id: session.id, blank: 0 })
		.select('question_id as questionId', 'in_view_ms as inViewMs');
	return responseTimes(answers, await otium.pace.thresholdsOf(otium.db, session.paper.id));
}
