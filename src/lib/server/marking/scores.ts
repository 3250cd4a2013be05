import { markForm, type MarkingRules, type Score, type Treatment } from '$core/marking';
import type { Form } from '$core/paper';
import { standingAnswers, type StandingAnswer } from '../answers';
import { groupBy, type Query } from '../db';
import { paperVersion } from '../paper';
import { handPoints } from './hand-points';
import { treatmentsFor } from './treatments';

/** A sitting that is to be marked. */
export type ToScore = {
	sittingId: string;
	administrationId: string;
	paperId: string;
	/** As stored. */
	form: string;
	marking: MarkingRules;
};
export type Scored = { score: Score; form: Form; answers: StandingAnswer[] };

/**
 * Scores of sittings as they are now: by the paper, what was corrected of it and what people marked. This is the one place
 * where answers become points.
 * @param treat what a paper is marked by instead, for trying a correction
 */
export async function scoresOf(
	db: Query,
	list: ToScore[],
	treat: (administrationId: string, paperId: string) => Promise<Map<string, Treatment>> = (...of) =>
		treatmentsFor(db, ...of)
): Promise<Map<string, Scored>> {
	const scores = new Map<string, Scored>();
	for (const group of groupBy(list, (one) => `${one.administrationId} ${one.paperId}`).values()) {
		const [{ administrationId, paperId }] = group;
		const ids = group.map(({ sittingId }) => sittingId);
		const { content } = await paperVersion(db, paperId);
		const treatments = await treat(administrationId, paperId);
		const byHand = await handPoints(db, administrationId, paperId, ids);
		const answers = await standingAnswers(db, ids);
		for (const { sittingId, form: text, marking } of group) {
			const form: Form = JSON.parse(text);
			const given = answers.get(sittingId) ?? [];
			const values = new Map(given.map(({ questionId, value }) => [questionId, value]));
			const score = markForm(content, form, values, marking, { treatments, byHand: byHand.get(sittingId) });
			scores.set(sittingId, { score, form, answers: given });
		}
	}
	return scores;
}
