import { responseTimes, type ResponseTimes } from '$core/pace';
import { mapInParts } from '../event-loop';
import type { House } from '../house';
import { rosterOf, type Session } from '../records';

/** What this needs of the house. */
type Needs = Pick<House, 'db' | 'pace'>;

/** So many sittings are read before everything else has its turn. */
const AT_ONCE = 100;

/** The questions of a session's paper in its own order, each with how long it took those who have answered it. */
export async function drawResponseTimes(otium: Needs, session: Session): Promise<ResponseTimes[]> {
	const answers = await mapInParts(
		await rosterOf(otium.db, session.id),
		AT_ONCE,
		(part): Promise<{ questionId: string; inViewMs: number }[]> =>
			otium
				.db('answer_standing')
				.whereIn('sitting_id', part)
				.where({ blank: 0 })
				.select('question_id as questionId', 'in_view_ms as inViewMs')
	);
	return responseTimes(answers, await otium.pace.thresholdsOf(otium.db, session.paper.id));
}
